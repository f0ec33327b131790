import 'fake-indexeddb/auto'
import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { device } from '../../lib/device'
import { eventually } from '../../lib/eventually.fixture'
import { useNotices } from '../../lib/notices'
import { useOutbox } from '../../lib/outbox'
import { useRecords, type NewShot } from './records'

/** A server that keeps one frame, with its shots as they were saved. */
let isAway = false
let frame: { id: string; version: number; shots: NewShot[] } | null
let conflicts = 0
let refusal = ''

async function serve(request: Request): Promise<Response> {
  const { pathname } = new URL(request.url)
  if (isAway) throw new TypeError('no network')
  const json = (value: unknown, status = 200) =>
    new Response(JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } })
  const body = ['POST', 'PUT'].includes(request.method)
    ? ((await request.json()) as { id: string; version: number; shots: NewShot[] })
    : null
  if (pathname === '/health') return new Response(null, { headers: { Date: new Date().toUTCString() } })
  if (pathname === '/api/frames' && !body) return json([])
  if (pathname === '/api/frames') frame ??= { id: body!.id, version: 1, shots: [] }
  else if (!frame) return json({ title: 'There is no such frame.', code: 'missing' }, 404)
  else if (body) {
    if (refusal) return json({ title: refusal, code: 'input', errors: [{ field: 'shots', message: refusal, allowed: 'a ball on' }] }, 400)
    if (conflicts-- > 0 || body.version !== frame.version) {
      frame.version++
      return json({ title: 'Changed.', code: 'conflict' }, 409)
    }
    frame = { ...frame, version: frame.version + 1, shots: body.shots }
  }
  return json({
    ...frame,
    title: 'A frame',
    first: 'A',
    second: 'B',
    story: {
      shots: frame.shots.map((shot) => ({ shot })),
      breaks: [],
      players: [],
      fault: null,
      state: { isOver: false, mayPot: ['red'] },
    },
  })
}

beforeEach(async () => {
  await (await device()).clear('outbox')
  await (await device()).clear('answers')
  localStorage.clear()
  isAway = false
  frame = null
  conflicts = 0
  refusal = ''
  vi.stubGlobal('fetch', serve)
  setActivePinia(createPinia())
})
afterEach(() => disposePinia(getActivePinia()!))

const kinds = () => (frame?.shots ?? []).map((s) => s.kind)

describe('a frame that is written down', () => {
  it('is begun and entered without a connection, and sent in order once there is one', async () => {
    isAway = true
    const records = useRecords()
    await records.start('A frame', 'A', 'B')
    const id = records.record!.id
    await records.enter({ kind: 'pot', potted: ['red'] })
    await records.enter({ kind: 'miss' })
    await records.amend({ why: 'thick' })
    await records.enter({ kind: 'safety' })
    await records.undo()
    expect([records.pending.length, records.lastShot?.kind, records.lastShot?.why]).toEqual([5, 'miss', 'thick'])
    isAway = false
    await useOutbox().flush()
    await eventually(() => expect(records.pending).toHaveLength(0))
    expect(frame!.id).toBe(id)
    expect(frame!.shots).toEqual([
      { kind: 'pot', potted: ['red'] },
      { kind: 'miss', why: 'thick' },
    ])
    expect(records.record!.story.shots).toHaveLength(2)
  })

  it('takes what another device has entered meanwhile, and lays its own over it', async () => {
    const records = useRecords()
    await records.start('A frame', 'A', 'B')
    frame!.shots = [{ kind: 'safety' }]
    frame!.version = 7
    conflicts = 2
    await records.enter({ kind: 'miss' })
    await eventually(() => expect(kinds()).toEqual(['safety', 'miss']))
  })

  it('says at once why a shot cannot be, and goes on without it', async () => {
    const records = useRecords()
    await records.start('A frame', 'A', 'B')
    refusal = 'The black is not on.'
    await records.enter({ kind: 'pot', potted: ['black'] })
    await eventually(() => expect(useNotices().notices.at(-1)?.text).toContain('The black is not on.'))
    await eventually(() => expect(useOutbox().waiting).toHaveLength(0))
    refusal = ''
    await records.enter({ kind: 'safety' })
    await eventually(() => expect(kinds()).toEqual(['safety']))
  })

  it('that was opened once can be read without a connection', async () => {
    const records = useRecords()
    await records.start('A frame', 'A', 'B')
    await records.enter({ kind: 'safety' })
    await eventually(() => expect(kinds()).toEqual(['safety']))
    const id = records.record!.id
    await records.show(undefined)
    expect(await records.show(id)).toBe(true)
    await eventually(async () => expect(await (await device()).get('answers', `frame ${id}`)).toBeTruthy())
    isAway = true
    await records.show(undefined)
    expect(await records.show(id)).toBe(true)
    expect(records.record!.story.shots).toHaveLength(1)
  })
})
