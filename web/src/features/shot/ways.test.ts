import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Way } from '../../api/client'
import { useShot } from '../../position/shot'
import { plainPot } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useGoal } from '../../position/goal'
import { useView } from '../../position/view'
import { useWays } from './ways'

const way = (height: number): Way =>
  ({
    id: `way ${height}`,
    stroke: { side: 0, height, pace: 5, elevation: 0, pot: { ball: 'red-1', pocket: 'green-top', part: 1 } },
  }) as unknown as Way

/** Answers every request for ways with these events, and counts them. */
function serve(events: object[]) {
  const asked: { body: Record<string, unknown>; signal: AbortSignal }[] = []
  vi.stubGlobal('fetch', async (path: string | Request, init: { body: string; signal: AbortSignal }) => {
    if (path !== '/api/ways') return new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } })
    asked.push({ body: JSON.parse(init.body), signal: init.signal })
    return new Response(events.map((e) => `event: ways\ndata: ${JSON.stringify(e)}\n\n`).join(''), { status: 200 })
  })
  return asked
}

const settle = async () => {
  await nextTick()
  await new Promise((r) => setTimeout(r, 200))
}

describe('put it there', () => {
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    serve([])
    useShot()
    const position = useDraft()
    position.reset(
      {
        name: 'a',
        about: '',
        content: {
          balls: [
            { id: 'white', x: 1, y: 1 },
            { id: 'red-1', x: 2, y: 1 },
          ],
          stroke: {
            aim: 0,
            side: 0,
            height: 0,
            pace: 4,
            elevation: 0,
            free: false,
            pot: { ball: 'red-1', pocket: 'green-top', part: 0, through: null, off: null },
          },
          conditions: {},
        },
      },
      null,
    )
  })

  it('asks once the panel is open and a place is pointed at, and keeps the last answer', async () => {
    const asked = serve([
      { share: 0, strokes: 0, ways: [], asSet: way(0) },
      { share: 0.5, strokes: 9, ways: [way(1)], asSet: null },
      { share: 1, strokes: 20, ways: [way(1), way(2)], asSet: null },
    ])
    const ways = useWays()
    useView().go('shot', 'there')
    await settle()
    expect(asked).toHaveLength(0)
    useGoal().goal.place = { x: 2, y: 0.5 }
    await settle()
    expect(asked).toHaveLength(1)
    expect(asked[0].body.goal).toEqual({ x: 2, y: 0.5, radius: 0.15 })
    expect(ways.ways).toHaveLength(2)
    expect([ways.share, ways.isSearching]).toEqual([1, false])
    expect(ways.asSet).not.toBeNull()
  })

  it('does not ask again for a tip or a pace, but does for a ball moved, and drops what is under way', async () => {
    const asked = serve([{ share: 1, strokes: 20, ways: [way(1)], asSet: null }])
    useShot()
    const position = useDraft()
    const ways = useWays()
    useView().go('shot', 'there')
    useGoal().goal.place = { x: 2, y: 0.5 }
    await settle()
    ways.use(ways.ways![0])
    await settle()
    expect(asked).toHaveLength(1)
    expect(position.stroke).toMatchObject({ height: 1, pace: 5, free: false })
    expect(position.stroke.pot).toMatchObject({ ball: 'red-1', part: 1 })
    expect(ways.isUsed(ways.ways![0])).toBe(true)
    position.content.balls[0].x = 1.1
    await settle()
    expect(asked).toHaveLength(2)
    expect(asked[0].signal.aborted).toBe(true)
  })

  it('lays two ways beside one another, a third takes the place of the first', async () => {
    serve([{ share: 1, strokes: 20, ways: [way(1), way(2), way(3)], asSet: null }])
    const ways = useWays()
    useView().go('shot', 'there')
    useGoal().goal.place = { x: 2, y: 0.5 }
    await settle()
    const [first, second, third] = ways.ways!
    ways.lay(first)
    ways.lay(second)
    expect([ways.a, ways.b]).toEqual([first, second])
    ways.lay(third)
    expect([ways.a, ways.b]).toEqual([second, third])
    ways.lay(third)
    expect(ways.b).toBeNull()
  })

  it('keeps what is laid beside one another when the goal changes, and says that it was judged for another', async () => {
    serve([{ share: 1, strokes: 20, ways: [way(1), way(2)], asSet: null }])
    const ways = useWays()
    useView().go('shot', 'there')
    useGoal().goal.place = { x: 2, y: 0.5 }
    await settle()
    const [first, second] = ways.ways!
    ways.lay(first)
    ways.lay(second)
    // The next goal has other ways.
    serve([{ share: 1, strokes: 20, ways: [way(3)], asSet: null }])
    useGoal().goal.place = { x: 1, y: 0.5 }
    await settle()
    expect(ways.ways).toHaveLength(1)
    expect([ways.a, ways.b]).toEqual([first, second])
    expect(ways.isHeldOver).toBe(true)
    // Another pot is another question.
    useDraft().setStroke({ pot: plainPot('blue', 'green-top') })
    await settle()
    expect([ways.a, ways.b]).toEqual([null, null])
  })

  it('says what is refused and what broke off', async () => {
    vi.stubGlobal(
      'fetch',
      async () => new Response(JSON.stringify({ title: 'The white cannot be sent on to that ball.', errors: [] }), { status: 400 }),
    )
    const ways = useWays()
    useView().go('shot', 'there')
    useGoal().goal.kind = 'cannon'
    useGoal().goal.ball = 'red-1'
    await settle()
    expect(ways.problem?.message).toContain('cannot be sent')
    expect(ways.isSearching).toBe(false)
  })

  it('turns words into figures for a cannon', () => {
    const goal = useGoal()
    Object.assign(goal.goal, { kind: 'cannon', ball: 'blue', fullness: 'half', speed: 'gentle' })
    expect(goal.entry).toEqual({ ball: 'blue', fullness: 0.5, fastest: 0.7 })
    goal.goal.ball = ''
    expect(goal.entry).toBeNull()
  })

  it('does not warn of the contact that is asked for, and another position asks anew', async () => {
    serve([])
    const goal = useGoal()
    const answer = useShot()
    const position = useDraft()
    answer.shot = {
      warnings: [
        { kind: 'inOff', ball: null },
        { kind: 'kiss', ball: 'blue' },
      ],
    } as unknown as typeof answer.shot
    expect(goal.warnings.map((w) => w.kind)).toEqual(['inOff', 'kiss'])
    Object.assign(goal.goal, { kind: 'cannon', ball: 'blue' })
    expect(goal.warnings.map((w) => w.kind)).toEqual(['inOff'])
    goal.goal.ball = 'pink'
    expect(goal.warnings).toHaveLength(2)
    const draft = { name: 'b', about: '', content: position.content }
    position.reset(draft, { id: '1', version: 1, draft })
    await nextTick()
    expect(goal.goal.ball).toBe('pink')
    position.reset(draft, { id: '2', version: 1, draft })
    await nextTick()
    expect(goal.goal.ball).toBe('')
  })

  it('ask for a gap, an angle, a cushion, two things at once or one of them, each when it is complete', () => {
    const goal = useGoal()
    Object.assign(goal.goal, { kind: 'gap', ball: 'blue', other: '' })
    expect(goal.entry).toBeNull()
    goal.goal.other = 'pink'
    expect(goal.entry).toEqual({ kind: 'gap', ball: 'blue', other: 'pink' })
    goal.goal.noCushion = true
    expect(goal.entry).toEqual({ kind: 'gap', ball: 'blue', other: 'pink', all: [{ kind: 'noCushion' }] })
    goal.goal.noCushion = false
    goal.addSecond()
    expect(goal.entry).toEqual({ kind: 'gap', ball: 'blue', other: 'pink' })
    Object.assign(goal.goal.second!, { kind: 'cushion', cushion: { name: 'top', at: 0.4 } })
    const cushion = { kind: 'cushion', cushion: 'top', at: 0.4, within: 0.1 }
    expect(goal.entry).toEqual({ kind: 'gap', ball: 'blue', other: 'pink', all: [cushion] })
    goal.goal.join = 'or'
    expect(goal.entry).toEqual({ kind: 'gap', ball: 'blue', other: 'pink', any: [cushion] })
    goal.dropSecond()
    Object.assign(goal.goal, { kind: 'angle', pocket: 'yellow-top', least: 10, most: 30 })
    expect(goal.entry).toEqual({ kind: 'angle', ball: 'blue', pocket: 'yellow-top', least: 10, most: 30 })
    Object.assign(goal.goal, { kind: 'drift', by: 0.4, within: 0.05 })
    expect(goal.entry).toEqual({ kind: 'drift', by: 0.4, within: 0.05 })
    Object.assign(goal.goal, { kind: 'stop', join: 'and' })
  })
})
