import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type BallEntry = Schemas['BallEntry']
export type Circle = Required<Schemas['Circle']>
export type Nose = Required<Schemas['Nose']>
export type Pocket = { name: string; jawA: Circle; jawB: Circle; drop: Circle }
export type Table = { noses: Nose[]; pockets: Pocket[] }
export type Reference = Schemas['ReferenceResult']
export type Shot = Schemas['ShotResult']
export type Simulation = Schemas['SimulationResult']
export type ShotEvent = Schemas['EventEntry']
export type Cut = Schemas['CutResult']
export type SavedPosition = Schemas['PositionResult']
export type Stroke = Required<Omit<Schemas['StrokeEntry'], 'pot'>> & { pot: Schemas['PotEntry'] | null }
export type Content = { balls: BallEntry[]; stroke: Stroke; conditions: Record<string, number> }
export type Draft = { name: string; about: string; content: Content }

export type FieldError = { field: string; message: string; allowed: string }

/** What the server, or the lack of one, answers instead of a result: RFC 9457 problem details. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    title: string,
    readonly detail: string,
    readonly errors: FieldError[] = [],
    readonly current: SavedPosition | null = null,
  ) {
    super(title)
  }

  /** The application or its database is away: nothing is wrong with what was sent. */
  get isAway() {
    return this.status === 0 || this.status >= 502
  }
}

export const client = createClient<paths>({ baseUrl: '' })

/** The data of a call, or a Problem thrown. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer
  try {
    answer = await call
  } catch {
    throw new Problem(0, 'Deep Baize does not answer.', 'Is it still running? What you were editing is still here.')
  }
  if (answer.response.ok) return answer.data as T
  const e = (answer.error ?? {}) as Record<string, unknown>
  throw new Problem(
    answer.response.status,
    typeof e.title === 'string' ? e.title : `The server answered ${answer.response.status}.`,
    typeof e.detail === 'string' ? e.detail : '',
    Array.isArray(e.errors) ? (e.errors as FieldError[]) : [],
    (e.current as SavedPosition | undefined) ?? null,
  )
}
