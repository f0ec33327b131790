import 'fake-indexeddb/auto'
import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { watch } from 'vue'
import { answered } from '../../api/connection'
import { forgetClock } from '../../lib/clock'
import { device, newId } from '../../lib/device'
import { eventually } from '../../lib/eventually.fixture'
import { useNotices } from '../../lib/notices'
import { useClub } from '../../position/club'
import { useOutbox } from '../../lib/outbox'
import { mirrored } from '../../domain/mirror'
import type { Step } from './routines'
import { useCounting } from './counting'
import { plainStroke } from '../../domain/strokes'
import { seen, type SeenStroke } from '../../position/seen'
import { useSession } from './session'

/** What the routine lays. */
const laid = [
  { id: 'white', x: 1, y: 0.9 },
  { id: 'red-1', x: 2, y: 0.9 },
]
type Sent = { path: string; body: Record<string, unknown> }
let sent: Sent[] = []
/** away: no network; refuse: the server says no to these attempts; else it answers. */
let isAway = false
let refuse: string[] = []
/** The status with which attempts are answered instead, for so many requests. */
let failing: { status: number; times: number } = { status: 0, times: 0 }
/** How far the server's clock is ahead of the device's, ms. */
let ahead = 0
/** Attempts that another device has corrected: the server keeps its correction, with this revision. */
let correctedElsewhere: Record<string, number> = {}

async function serve(request: Request): Promise<Response> {
  if (isAway) throw new TypeError('no network')
  const path = new URL(request.url).pathname
  if (path === '/health') return new Response(null, { status: 200, headers: { Date: new Date(Date.now() + ahead).toUTCString() } })
  const body = request.method === 'GET' ? {} : ((await request.json()) as Record<string, unknown>)
  sent.push({ path, body })
  const json = (value: unknown, status = 200) =>
    new Response(JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } })
  const session = {
    id: 's',
    with: {},
    startedAt: '',
    endedAt: null,
    plan: [],
    now: null,
    note: '',
    changes: sent.length,
    version: sent.length,
  }
  if (path.startsWith('/api/routines/')) {
    const step = { label: '', balls: laid, stroke: { aim: 0, side: 0, height: 0, pace: 3, pot: null }, demands: [] }
    return json({ id: 'stop', routine: { name: 'Stop', order: 'any', bothSides: false, steps: [step] } })
  }
  if (path.endsWith('/attempts')) {
    const attempts = body.attempts as { id: string }[]
    if (failing.times-- > 0) return json({ title: 'Not now.', code: 'x', errors: [] }, failing.status)
    if (attempts.some((a) => refuse.includes(a.id))) return json({ title: 'No.', code: 'invalid', errors: [] }, 400)
    const id = path.split('/')[4]
    const kept = (a: { id: string; base?: number; revision?: number }) => {
      const theirs = correctedElsewhere[a.id]
      const isConflict = theirs !== undefined && (a.base ?? 0) < theirs
      return {
        ...a,
        ...(isConflict ? { revision: theirs, reasons: ['thin'] } : {}),
        done: true,
        note: '',
        changedIn: sent.length,
        isConflict,
      }
    }
    const answers = attempts.map(kept)
    const conflicts = answers.filter((a) => a.isConflict).map((a) => a.id)
    return json({ session: { ...session, id }, attempts: answers, conflicts })
  }
  return json(path.endsWith('/sessions') ? { ...session, id: body.id, now: body.now } : session, path.endsWith('/sessions') ? 201 : 200)
}

const settled = (isSo: () => boolean) => eventually(() => expect(isSo()).toBe(true))

beforeEach(async () => {
  await (await device()).clear('outbox')
  forgetClock()
  answered()
  localStorage.clear()
  failing = { status: 0, times: 0 }
  ahead = 0
  sent = []
  isAway = false
  refuse = []
  correctedElsewhere = {}
  vi.stubGlobal('fetch', serve)
  setActivePinia(createPinia())
  Object.assign(useClub().ids, { players: newId(), tables: newId(), cues: newId() })
})

afterEach(() => disposePinia(getActivePinia()!))

const now = { routine: 'stop', step: 0, mirrored: false, stroke: null, group: '' }
const attemptsSent = () =>
  sent.filter((s) => s.path.endsWith('/attempts')).flatMap((s) => s.body.attempts as { id: string; revision: number }[])

describe('a stroke that was seen to end on the desk', () => {
  const told = (id: string, more: Partial<SeenStroke> = {}) => {
    let isCounted = false
    const stroke = { ...plainStroke }
    void seen.trigger({ id, balls: laid, stroke, white: { x: 1.5, y: 1 }, ball: null, ...more, counted: () => (isCounted = true) })
    return isCounted
  }

  it('counts in the session that is open, if it was played from its step; said again it corrects that attempt', async () => {
    const [session, counting] = [useSession(), useCounting()]
    expect(told('a')).toBe(false)
    session.begin(now)
    await settled(() => counting.step !== null)
    // From other balls it is none of this session's.
    expect(told('b', { balls: laid.map((b) => ({ ...b, x: b.x + 0.1 })) })).toBe(false)
    expect(session.attempts.length).toBe(0)
    expect(told('a')).toBe(true)
    expect(session.attempts.map((a) => [a.white, a.said])).toEqual([[{ x: 1.5, y: 1 }, true]])
    expect(told('a', { ball: { x: 3, y: 1.2 } })).toBe(true)
    expect(session.attempts.map((a) => [a.ball, a.said])).toEqual([[{ x: 3, y: 1.2 }, false]])
    expect(told('c')).toBe(true)
    expect(session.attempts.length).toBe(2)
  })
})

describe('what is counted on the device', () => {
  it('is on the screen at once and sent when there is a network, in order, each once', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    isAway = true
    session.begin(now)
    const ids = [session.count({ said: true }), session.count({ said: false }), session.count({ said: true })]
    session.correct(ids[1], { reasons: ['thick'] })
    expect(session.attempts.map((a) => a.done)).toEqual([true, false, true])
    await settled(() => outbox.isAway && session.unsent === 5)
    isAway = false
    await outbox.flush()
    await settled(() => session.unsent === 0)
    expect(sent[0].path).toBe('/api/practice/sessions')
    expect(attemptsSent().map((a) => [a.id, a.revision])).toEqual([
      [ids[0], 1],
      [ids[1], 1],
      [ids[2], 1],
      [ids[1], 2],
    ])
    await outbox.flush()
    expect(attemptsSent()).toHaveLength(4)
  })

  it('is there after the tab was closed', async () => {
    isAway = true
    const session = useSession()
    session.begin(now)
    const id = session.count({ said: true })
    await settled(() => useOutbox().isAway && session.unsent === 2)
    // Another tab, with nothing in its memory.
    disposePinia(getActivePinia()!)
    setActivePinia(createPinia())
    isAway = false
    const outbox = useOutbox()
    await settled(() => attemptsSent().length === 1)
    expect(attemptsSent()[0].id).toBe(id)
    await settled(() => outbox.toSend.length === 0)
  })

  it('that the server refuses is put aside and holds nothing up', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    isAway = true
    session.begin(now)
    const ids = [session.count({ said: true }), session.count({ said: true })]
    refuse = [ids[0]]
    await settled(() => outbox.isAway && session.unsent === 3)
    isAway = false
    await outbox.flush()
    await settled(() => outbox.toSend.length === 0)
    expect(outbox.refused).toHaveLength(1)
    expect(attemptsSent().map((a) => a.id)).toContain(ids[1])
    await outbox.drop([outbox.refused[0]])
    await settled(() => outbox.waiting.length === 0)
  })

  it.each([401, 403, 408, 429, 500, 503])(
    'that is answered with %i is sent later by itself, and never called sent or refused',
    async (status) => {
      const [session, outbox] = [useSession(), useOutbox()]
      session.begin(now)
      await settled(() => outbox.toSend.length === 0)
      // Written down as it happens: by itself it is soon tried again, and then nothing of it is left to see.
      const troubles: unknown[] = []
      watch(
        () => outbox.trouble,
        (why) => why && troubles.push({ status: why.status, refused: outbox.refused.length, unsent: session.unsent }),
        { flush: 'sync' },
      )
      failing = { status, times: 1 }
      const id = session.count({ said: true })
      await settled(() => troubles.length > 0)
      expect(troubles).toEqual([{ status, refused: 0, unsent: 1 }])
      await outbox.flush()
      expect(attemptsSent().map((a) => a.id)).toContain(id)
      expect([outbox.toSend.length, outbox.trouble]).toEqual([0, null])
    },
  )

  it('of one session waits where the server fails at it, and that of another goes', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    session.begin(now)
    await settled(() => outbox.toSend.length === 0)
    failing = { status: 500, times: 1 }
    isAway = true
    const first = session.count({ said: true })
    session.begin(now)
    const second = session.count({ said: true })
    await settled(() => outbox.isAway)
    isAway = false
    await eventually(() => expect(outbox.toSend).toHaveLength(0))
    const taken = attemptsSent().map((a) => a.id)
    // The first of these was answered with the failure.
    expect(taken).toEqual([first, second, first])
  })

  it('is sent from memory where the device can keep nothing, and that is said', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    session.begin(now)
    await settled(() => outbox.toSend.length === 0)
    const full = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    isAway = true
    const ids = [1, 2, 3, 4, 5].map(() => session.count({ said: true }))
    await settled(() => outbox.cannotKeep && session.unsent === 5)
    isAway = false
    await outbox.flush()
    full.mockRestore()
    expect(attemptsSent().map((a) => a.id)).toEqual(ids)
    expect(outbox.waiting).toHaveLength(0)
  })

  it('is sent though the device was cleared meanwhile', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    isAway = true
    session.begin(now)
    const id = session.count({ said: true })
    await settled(() => outbox.isAway && session.unsent === 2)
    await (await device()).clear('outbox')
    isAway = false
    await outbox.flush()
    expect(attemptsSent().map((a) => a.id)).toEqual([id])
  })

  it('has the time of the server’s clock, though this device’s is off by days', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    isAway = true
    session.begin(now)
    session.count({ said: true })
    await settled(() => outbox.isAway && session.unsent === 2)
    isAway = false
    ahead = 5 * 24 * 3600 * 1000
    await outbox.flush()
    const off = (time: string) => Math.abs(Date.parse(time) - Date.now() - ahead)
    expect(off(sent.find((s) => s.path.endsWith('/sessions'))!.body.startedAt as string)).toBeLessThan(60_000)
    expect(off((attemptsSent()[0] as unknown as { at: string }).at)).toBeLessThan(60_000)
    // What is counted from now on is right from the beginning.
    session.setTask(now)
    session.count({ said: true })
    expect(off(session.attempts.at(-1)!.at)).toBeLessThan(60_000)
    await settled(() => outbox.toSend.length === 0)
  })

  it('of a session that is gone can go into a new one, and is tried again as it was', async () => {
    const [session, outbox] = [useSession(), useOutbox()]
    session.begin(now)
    await settled(() => outbox.toSend.length === 0)
    failing = { status: 404, times: 99 }
    const ids = [session.count({ said: true }), session.count({ said: false })]
    const mine = () => outbox.refused.filter((w) => w.session === session.session!.id)
    await settled(() => mine().length === 2 && session.unsent === 0)
    await outbox.retry(mine())
    expect(mine()).toHaveLength(2)
    failing = { status: 0, times: 0 }
    sent = []
    const id = await session.moveToNew(mine())
    await settled(() => outbox.waiting.length === 0)
    expect(sent.at(-1)!.path).toBe(`/api/practice/sessions/${id}/attempts`)
    expect(attemptsSent().map((a) => a.id)).not.toContain(ids[0])
    expect(attemptsSent()).toHaveLength(2)
  })

  it('says that another device has corrected the same attempt, and sends this correction if it is wanted all the same', async () => {
    const session = useSession()
    session.begin(now)
    const id = session.count({ said: false })
    await settled(() => session.unsent === 0)
    correctedElsewhere = { [id]: 2 }
    session.correct(id, { reasons: ['thick'] })
    await settled(() => session.attempts[0].reasons[0] === 'thin')
    const notice = useNotices().notices.at(-1)!
    expect(notice.text).toContain('corrected on another device')
    notice.action!.run()
    await settled(() => session.unsent === 0 && attemptsSent().at(-1)!.revision === 3)
    expect(attemptsSent().at(-1)).toMatchObject({ id, base: 2, reasons: ['thick'] })
    expect(session.attempts[0].reasons).toEqual(['thick'])
  })

  it('is taken back and brought back by further revisions', async () => {
    const session = useSession()
    session.begin(now)
    const id = session.count({ said: true })
    session.undo()
    expect(session.attempts).toHaveLength(0)
    session.correct(id, { withdrawn: false })
    expect(session.attempts.map((a) => a.revision)).toEqual([3])
    await settled(() => session.unsent === 0)
  })
})

describe('the other side of the table', () => {
  it('has yellow and green, their sides and the lengths across changed, and is itself again when turned twice', () => {
    const step = {
      label: 'a',
      balls: [
        { id: 'white', x: 1, y: 0.5 },
        { id: 'green', x: 2, y: 0.25 },
      ],
      stroke: {
        aim: 10,
        side: 0.5,
        height: 0,
        pace: 4,
        elevation: null,
        free: false,
        pot: { ball: 'green', pocket: 'yellow-top', part: 0 },
      },
      demands: [{ kind: 'whiteIn', area: { x: 1, y: 0.2, radius: null, toX: 2, toY: 0.5 } }],
    } as unknown as Step
    const turned = mirrored(step, 1.75)
    expect(turned.balls[1]).toEqual({ id: 'yellow', x: 2, y: 1.5 })
    expect(turned.stroke!.pot!.pocket).toBe('green-top')
    expect([turned.stroke!.aim, turned.stroke!.side]).toEqual([-10, -0.5])
    expect(turned.demands[0].area).toMatchObject({ y: 1.25, toY: 1.55 })
    const twice = mirrored(turned, 1.75)
    expect(twice.balls).toEqual(step.balls)
    expect(twice.demands[0].area!.y).toBeCloseTo(0.2)
  })
})
