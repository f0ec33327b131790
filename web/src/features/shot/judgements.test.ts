import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Reference, Shot } from '../../api/client'
import { usePlayer } from '../../position/player'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { type PotOption, useJudgements } from './judgements'

const option = (cutDegrees: number, change: object = {}) =>
  ({ cut: { ball: 'red-1', pocket: 'yellow', struck: 'red-1', kind: 'single', off: null, cutDegrees, ...change }, pace: 5, reach: { elevationDegrees: 8 } }) as unknown as PotOption

describe('judgements', () => {
  let asked: { path: string; body: Record<string, unknown>; signal: AbortSignal }[]
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    asked = []
    vi.stubGlobal('fetch', async (request: Request) => {
      asked.push({ path: new URL(request.url).pathname, body: JSON.parse((await request.text()) || '{}'), signal: request.signal })
      return new Response('[]', { status: 200, headers: { 'Content-Type': 'application/json' } })
    })
    useAnswer()
    const position = useDraft()
    position.reference = { touchOfSide: 0.5 } as Reference
    position.reset(
      { name: 'a', about: '', content: { balls: [{ id: 'white', x: 1, y: 1 }, { id: 'red-1', x: 2, y: 1 }], stroke: { ...plainStroke, pace: 3, pot: plainPot('red-1', 'green-top') }, conditions: {} } },
      null,
    )
  })
  afterEach(() => disposePinia(getActivePinia()!))

  const paths = () => asked.map((a) => a.path).filter((p) => ['/api/read', '/api/spread', '/api/fan', '/api/sides'].includes(p))

  it('are asked for only while they are shown, once the shot itself is answered', async () => {
    const judgements = useJudgements()
    const answer = useAnswer()
    answer.shot = {} as Shot
    await nextTick()
    expect(paths()).toEqual([])
    judgements.below = 'on'
    await vi.waitFor(() => expect(paths()).toEqual(['/api/read']))
    judgements.fanKind = 'paces'
    await vi.waitFor(() => expect(paths()).toEqual(['/api/read', '/api/fan']))
    judgements.below = 'happens'
    judgements.fanKind = null
    answer.shot = {} as Shot
    await nextTick()
    expect(paths()).toHaveLength(2)
  })

  it('drop the samples of a shot that has changed', async () => {
    const judgements = useJudgements()
    await vi.waitFor(() => expect(useAnswer().shot).toBeTruthy())
    judgements.spreadOpen = true
    await vi.waitFor(() => expect(paths()).toEqual(['/api/spread']))
    useAnswer().shot = {} as Shot
    await vi.waitFor(() => expect(paths()).toEqual(['/api/spread', '/api/spread']))
    const [first, second] = asked.filter((a) => a.path === '/api/spread')
    expect([first.signal.aborted, second.signal.aborted]).toEqual([true, false])
    judgements.spreadOpen = false
    await nextTick()
    expect(judgements.spread).toBeNull()
  })

  it.each([
    ['the spread', '/api/spread', 'spread', (j: ReturnType<typeof useJudgements>): unknown => (j.spreadOpen = true)],
    ['the list of what is on', '/api/read', 'read', (j: ReturnType<typeof useJudgements>): unknown => (j.below = 'on')],
    ['a fan', '/api/fan', 'fan', (j: ReturnType<typeof useJudgements>): unknown => (j.fanKind = 'paces')],
  ] as const)('say why when %s is refused, wait no longer, and forget it once there is an answer', async (_, path, what, show) => {
    let refused = true
    vi.stubGlobal('fetch', async (request: Request) => {
      const problem = { title: 'The position does not hold.', detail: '', errors: [{ field: 'balls[1]', message: 'Two balls overlap.', allowed: 'apart' }] }
      const isRefused = refused && new URL(request.url).pathname === path
      return new Response(JSON.stringify(isRefused ? problem : []), { status: isRefused ? 400 : 200, headers: { 'Content-Type': 'application/json' } })
    })
    const judgements = useJudgements()
    await vi.waitFor(() => expect(useAnswer().shot).toBeTruthy())
    show(judgements)
    await vi.waitFor(() => expect(judgements.refusals[what]).toContain('Two balls overlap.'))
    await vi.waitFor(() => expect(judgements.isSampling).toBe(false))
    refused = false
    useAnswer().shot = {} as Shot
    await vi.waitFor(() => expect(judgements.refusals[what]).toBeUndefined())
  })

  it('sample no stroke while the hand is still moving', async () => {
    const judgements = useJudgements()
    await vi.waitFor(() => expect(useAnswer().shot).toBeTruthy())
    judgements.spreadOpen = true
    for (let i = 0; i < 8; i++) {
      useAnswer().shot = {} as Shot
      await new Promise((rested) => setTimeout(rested, 30))
    }
    expect(paths()).toEqual([])
    await vi.waitFor(() => expect(paths()).toEqual(['/api/spread']))
  })

  it('set up a pot at the pace it was judged at, with the butt as high as it must be', () => {
    useAnswer()
    const position = useDraft()
    useJudgements().choose(option(25))
    expect(position.stroke).toMatchObject({ pace: 5, elevation: 8, side: 0, free: false, pot: plainPot('red-1', 'yellow') })
    position.setStroke({ pace: 7, elevation: 20 })
    useJudgements().choose(option(25))
    expect(position.stroke).toMatchObject({ pace: 7, elevation: 20 })
  })

  it('add a touch of helping side on cuts for a player who plays so, towards the side that turns the ball', () => {
    useAnswer()
    const position = useDraft()
    usePlayer().player.sideHabit = 'helping'
    for (const [cut, side] of [[25, 0.5], [-25, -0.5]]) {
      useJudgements().choose(option(cut))
      expect(position.stroke.side).toBe(side)
    }
    position.setStroke({ side: 0 })
    useJudgements().choose(option(6))
    expect(position.stroke.side).toBe(0)
    useJudgements().choose(option(25, { kind: 'plant', struck: 'red-2' }))
    expect(position.stroke).toMatchObject({ side: 0, pot: { through: 'red-2' } })
  })
})
