import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { useView } from '../../position/view'
import { useDraft } from '../../position/draft'
import { usePlans } from './plans'

const balls = [
  { id: 'white', x: 1, y: 1 },
  { id: 'black', x: 3, y: 0.8 },
]
const stroke = { aim: 0, side: 0, height: 0, pace: 4, elevation: 0, free: false, pot: null }
const planned = (height: number, whiteX: number) => ({
  content: {
    balls: [{ ...balls[0], x: whiteX }, balls[1]],
    stroke: { height, pace: 5, pot: { ball: 'black', pocket: 'green-top' } },
    conditions: {},
  },
  choice: {
    stroke: { height, pace: 5, pot: { ball: 'black', pocket: 'green-top' } },
    nominated: 'black',
    balls: [],
    reach: { stance: 'natural' },
  },
  arrival: { follow: 0.5 },
  points: 7,
})
const answer = (share: number, shots: object[]) => ({
  wait: null,
  examined: 10,
  share,
  plans: [{ shots, prospect: null, isComplete: false }],
  alternatives: [],
})

/** Stands in for the server: plans as these events, and a table after the stroke. */
function serve(events: object[]) {
  const asked: { path: string; body: Record<string, never>; signal: AbortSignal | null }[] = []
  vi.stubGlobal('fetch', async (to: string | Request, init?: RequestInit) => {
    const path = typeof to === 'string' ? to : new URL(to.url, 'http://x').pathname
    const body = JSON.parse((typeof to === 'string' ? (init!.body as string) : await to.text()) || '{}')
    asked.push({ path, body, signal: init?.signal ?? null })
    if (path === '/api/plan') return new Response(events.map((e) => `data: ${JSON.stringify(e)}\n\n`).join(''), { status: 200 })
    const answers: Record<string, object> = {
      '/api/frame': { on: 'black' },
      '/api/play-on': {
        content: { balls: [{ id: 'white', x: 2, y: 1 }], stroke: {}, conditions: {}, frame: { on: 'black', break: 7 } },
        frame: { isOver: false, break: 7 },
        points: 7,
        penalty: 0,
        fouls: [],
        potted: ['black'],
        spotted: [],
      },
    }
    return new Response(JSON.stringify(answers[path] ?? {}), { status: 200, headers: { 'Content-Type': 'application/json' } })
  })
  return asked
}

const settle = async () => {
  await nextTick()
  await new Promise((r) => setTimeout(r, 330))
}

describe('plans', () => {
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    serve([])
    useDraft().reset({ name: 'a', about: '', content: { balls, stroke, conditions: {} } }, null)
  })

  it('are asked for when the panel is open, not when only the stroke changes, and anew when a ball moves', async () => {
    const asked = serve([answer(0.1, [planned(0, 1)]), answer(1, [planned(0, 1), planned(1, 2)])])
    const [plans, position] = [usePlans(), useDraft()]
    await settle()
    expect(asked.filter((a) => a.path === '/api/plan')).toHaveLength(0)
    useView().go('break')
    await settle()
    expect(plans.chosen!.shots).toHaveLength(2)
    expect(plans.isSearching).toBe(false)
    position.setStroke({ pace: 7 })
    await settle()
    expect(asked.filter((a) => a.path === '/api/plan')).toHaveLength(1)
    position.content.balls[0].x = 1.2
    await settle()
    expect(asked.filter((a) => a.path === '/api/plan')).toHaveLength(2)
  })

  it('set the desk up with the first shot, and only look ahead at later ones', async () => {
    serve([answer(1, [planned(0.3, 1), planned(1, 2)])])
    const [plans, position] = [usePlans(), useDraft()]
    useView().go('break')
    await settle()
    plans.look(1)
    expect(plans.ahead!.content.balls[0].x).toBe(2)
    expect([position.ball('white')!.x, position.stroke.height]).toEqual([1, 0])
    plans.look(0)
    expect(plans.ahead).toBeNull()
    expect([position.stroke.height, position.stroke.pace, position.stroke.pot!.pocket]).toEqual([0.3, 5, 'green-top'])
    plans.look(1)
    plans.goThere()
    expect([position.ball('white')!.x, plans.shot]).toEqual([2, 0])
  })

  it('go on from the table after the stroke, and undo brings the old one back', async () => {
    const asked = serve([answer(1, [planned(0.3, 1)])])
    const [plans, position] = [usePlans(), useDraft()]
    useView().go('break')
    await settle()
    await plans.playOn()
    expect(asked.find((a) => a.path === '/api/play-on')!.body).toMatchObject({
      content: { stroke: { height: 0.3, pot: { ball: 'black' } } },
      missed: null,
    })
    expect([position.content.balls.length, position.content.frame!.break]).toEqual([1, 7])
    position.undo()
    expect(position.content.balls).toHaveLength(2)
  })

  it('can be stopped, and say so', async () => {
    serve([])
    vi.stubGlobal('fetch', (path: string | Request, init?: RequestInit) =>
      path === '/api/plan'
        ? new Promise((_, refuse) => init!.signal!.addEventListener('abort', () => refuse(new DOMException('aborted', 'AbortError'))))
        : Promise.resolve(new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } })),
    )
    const plans = usePlans()
    useView().go('break')
    await settle()
    expect(plans.isSearching).toBe(true)
    plans.stop()
    await settle()
    expect([plans.isSearching, plans.wasStopped, plans.problem]).toEqual([false, true, null])
  })
})
