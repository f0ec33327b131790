import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { device, newId } from '../../lib/device'
import { useNotices } from '../../lib/notices'
import { useClub } from '../../position/club'
import { useOutbox } from './outbox'
import { mirrored } from '../../domain/mirror'
import type { Step } from './routines'
import { useSession } from './session'

type Sent = { path: string; body: Record<string, unknown> }
let sent: Sent[] = []
/** away: no network; refuse: the server says no to these attempts; else it answers. */
let isAway = false
let refuse: string[] = []
/** Attempts that another device has corrected: the server keeps its correction, with this revision. */
let correctedElsewhere: Record<string, number> = {}

async function serve(request: Request): Promise<Response> {
  if (isAway) throw new TypeError('no network')
  const path = new URL(request.url).pathname
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
  if (path.endsWith('/attempts')) {
    const attempts = body.attempts as { id: string }[]
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

const settled = async (isSo: () => boolean) => {
  for (let i = 0; i < 200 && !isSo(); i++) await new Promise((done) => setTimeout(done, 10))
  expect(isSo()).toBe(true)
}

beforeEach(async () => {
  await (await device()).clear('outbox')
  sent = []
  isAway = false
  refuse = []
  correctedElsewhere = {}
  vi.stubGlobal('fetch', serve)
  setActivePinia(createPinia())
  Object.assign(useClub().ids, { players: newId(), tables: newId(), cues: newId() })
})

const now = { routine: 'stop', step: 0, mirrored: false, stroke: null, group: '' }
const attemptsSent = () =>
  sent.filter((s) => s.path.endsWith('/attempts')).flatMap((s) => s.body.attempts as { id: string; revision: number }[])

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
    await outbox.drop(outbox.refused[0])
    await settled(() => outbox.waiting.length === 0)
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
