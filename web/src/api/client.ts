import { EventSourceParserStream } from 'eventsource-parser/stream'
import createClient from 'openapi-fetch'
import { answered, notAnswered } from './connection'
import { sendOnce, creates } from './idempotency'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type BallEntry = Schemas['BallEntry']
export type Circle = Required<Schemas['CircleResult']>
export type Nose = Required<Schemas['NoseResult']>
export type Pocket = { name: string; jawA: Circle; jawB: Circle; drop: Circle }
export type Table = { noses: Nose[]; pockets: Pocket[] }
export type Reference = Schemas['ReferenceResult']
/** An event of a shot, with the cushion where one was met. */
export type ShotEvent = Schemas['EventEntry'] & { cushion: string | null }
export type Simulation = Omit<Schemas['SimulationResult'], 'events'> & { events: ShotEvent[] }
export type Shot = Omit<Schemas['ShotResult'], 'simulation' | 'cushions'> & { simulation: Simulation }
export type Cut = Schemas['CutResult']
export type SavedPosition = Schemas['PositionResult']
export type PositionItem = Schemas['PositionItem']
export type Pot = Required<Schemas['PotEntry']>
export type Way = Schemas['WayResult']
export type Stroke = Required<Omit<Schemas['StrokeEntry'], 'pot'>> & { pot: Pot | null }
export type FrameEntry = Schemas['FrameEntry']
export type Content = { balls: BallEntry[]; stroke: Stroke; conditions: Record<string, number>; frame?: FrameEntry }
export type TrialEntry = Schemas['TrialEntry']
export type Draft = { name: string; about: string; content: Content; trials?: TrialEntry[] }

export type FieldError = { field: string; message: string; allowed: string; code?: string }

/** What the server, or the lack of one, answers instead of a result: RFC 9457 problem details. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    title: string,
    readonly detail: string,
    readonly errors: FieldError[] = [],
    readonly current: SavedPosition | null = null,
    /** What kind of problem it is, for whoever words it. */
    readonly code = 'unexpected',
  ) {
    super(title)
  }

  /** The application or its database is away: nothing is wrong with what was sent. */
  get isAway() {
    return this.status === 0 || this.status >= 502
  }

  /**
   * Nothing is wrong with what was sent: the same request may be answered later. Signed out, refused for now, too slow, too much at once,
   * or the server has failed.
   */
  get isForLater() {
    return [0, 401, 403, 408, 425, 429].includes(this.status) || this.status >= 500
  }
}

// The page's own fetch, looked up at each call, so that a test can stand in for the server.
export const client = createClient<paths>({ baseUrl: '', fetch: (request) => sendOnce(request) })

const away = () => new Problem(0, 'Deep Baize does not answer.', '', [], null, 'away')

function problemOf(status: number, error: unknown): Problem {
  const e = (error ?? {}) as Record<string, unknown>
  return new Problem(
    status,
    typeof e.title === 'string' ? e.title : `The server answered ${status}.`,
    typeof e.detail === 'string' ? e.detail : '',
    Array.isArray(e.errors) ? (e.errors as FieldError[]) : [],
    (e.current as SavedPosition | undefined) ?? null,
    typeof e.code === 'string' ? e.code : status >= 502 ? 'away' : status >= 500 ? 'unexpected' : 'refused',
  )
}

/** A request that was given up by the page itself: no failure, and nothing to tell. */
export const isAbort = (e: unknown) => e instanceof DOMException && e.name === 'AbortError'

/** So many the server gives of a list at once. */
const mostAtOnce = 200

/**
 * The first of a list, and how many there are in all.
 * @param part A piece of it: so many left out, so many wanted.
 */
export async function askList<T>(
  part: (range: { skip: number; take: number }) => Promise<{ data?: T[]; error?: unknown; response: Response }>,
  wanted: number,
): Promise<{ items: T[]; total: number }> {
  const items: T[] = []
  for (;;) {
    const call = part({ skip: items.length, take: Math.min(mostAtOnce, wanted - items.length) })
    const found = await ask(call)
    items.push(...found)
    const total = Number((await call).response.headers.get('Total-Count') ?? items.length)
    if (!found.length || items.length >= Math.min(wanted, total)) return { items, total }
  }
}

/** The data of a call; a Problem thrown if it is refused, an AbortError if it is given up. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer
  try {
    answer = await call
  } catch (e) {
    // Dropped on purpose: nobody waits for it any more.
    if (isAbort(e)) throw e
    notAnswered()
    throw away()
  }
  if (answer.response.status < 502) answered()
  if (answer.response.ok) return answer.data as T
  throw problemOf(answer.response.status, answer.error)
}

/** The answer to a request that the typed client is not for: streams and files. */
async function send(path: string, request: RequestInit): Promise<Response> {
  let response
  try {
    response = await (creates(path) ? sendOnce(new Request(new URL(path, location.href), request)) : fetch(path, request))
  } catch (e) {
    if (request.signal?.aborted) throw e
    notAnswered()
    throw away()
  }
  if (response.status < 502) answered()
  if (!response.ok) throw problemOf(response.status, await response.json().catch(() => null))
  return response
}

const posted = (text: string, signal?: AbortSignal, type = 'application/json'): RequestInit => ({
  method: 'POST',
  headers: { 'Content-Type': type },
  body: text,
  signal,
})

/** Posts and reads the answer as a stream of server-sent events, one by one; ends when the server does, or the signal says so. */
export async function follow<T>(path: keyof paths, body: unknown, signal: AbortSignal, tell: (event: T) => void): Promise<void> {
  const response = await send(path, posted(JSON.stringify(body), signal))
  const events = response.body!.pipeThrough(new TextDecoderStream()).pipeThrough(new EventSourceParserStream()).getReader()
  for (;;) {
    const { done, value } = await events.read()
    if (done) return
    // The status was sent long ago: what went wrong since is an event of its own, and the last.
    if (value.event === 'problem') {
      const problem = JSON.parse(value.data) as { status: number }
      throw problemOf(problem.status, problem)
    }
    tell(JSON.parse(value.data) as T)
  }
}

/** What is there, as a file. */
export const fileAt = async (path: string): Promise<Blob> => (await send(path, {})).blob()

/** Posts JSON and returns the answer as a file. */
export const fetchFile = async (path: keyof paths, body: unknown): Promise<Blob> => (await send(path, posted(JSON.stringify(body)))).blob()

/** Posts a text, of JSON or of another kind, as it is and returns the text of the answer: for files, in and out. */
export const exchange = async (path: keyof paths, text: string, type?: string): Promise<string> =>
  (await send(path, posted(text, undefined, type))).text()
