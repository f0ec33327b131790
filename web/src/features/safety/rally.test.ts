import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useDraft } from '../../position/draft'
import { useRally } from './rally'
import { rallyWords } from './words'

const stroke = { aim: 10, side: 0, height: 0, pace: 4, elevation: null, pot: { ball: 'red-1', pocket: 'green-top', part: 0 }, free: false }
const balls = (x: number) => [
  { id: 'white', x, y: 1 },
  { id: 'red-1', x: 3, y: 0.8 },
]
let asked: { missed: string | null; content: { stroke: { free: boolean; aim: number } } }[]
let pinia: Pinia

/** Stands in for the server: a pot keeps the turn, everything else hands it over. */
beforeEach(() => {
  asked = []
  sessionStorage.clear()
  vi.stubGlobal('fetch', async (to: Request) => {
    if (!to.url.endsWith('/api/play-on')) return new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } })
    const body = JSON.parse(await to.text())
    asked.push(body)
    const turn = body.content.frame.turn
    const isPot = body.missed === null && body.content.stroke.pot
    const answer = {
      content: { balls: balls(1 + asked.length / 10), stroke: {}, conditions: {}, frame: { turn: isPot ? turn : 1 - turn } },
      frame: { isOver: false, break: isPot ? 1 : 0 },
      points: isPot ? 1 : 0,
      penalty: 0,
      fouls: [],
      potted: isPot ? ['red-1'] : [],
      spotted: [],
    }
    return new Response(JSON.stringify(answer), { status: 200, headers: { 'Content-Type': 'application/json' } })
  })
  pinia = createPinia()
  setActivePinia(pinia)
  useDraft().reset(
    {
      name: 'x',
      about: '',
      content: {
        balls: balls(1),
        stroke: { ...stroke, pot: { ...stroke.pot, through: null, off: null } },
        conditions: {},
        frame: { turn: 0 },
      },
    },
    null,
  )
})
afterEach(() => disposePinia(pinia))

describe('a rally', () => {
  it('goes on with the other player at the table after a miss, and with the same after a pot', async () => {
    const [rally, position] = [useRally(), useDraft()]
    await rally.playOn('as played')
    expect(rally.strokes.map((s) => [s.player, s.points])).toEqual([[0, 1]])
    expect(rally.isTheirTurn).toBe(false)
    position.setStroke({ ...stroke, pot: { ...stroke.pot, through: null, off: null } })
    await rally.playOn('thin')
    expect(asked[1].missed).toBe('thin')
    expect(rally.isTheirTurn).toBe(true)
    expect(rallyWords(rally.strokes[0], rally.asker)).toMatch(/^You: red 1 into the .* – 1 point$/)
    expect(rallyWords(rally.strokes[1], rally.asker)).toMatch(/^You: .* – missed thin$/)
  })

  it('goes back to the table before any stroke, and what followed is gone', async () => {
    const [rally, position] = [useRally(), useDraft()]
    await rally.playOn('thick')
    await rally.playOn('thick')
    expect(rally.strokes).toHaveLength(2)
    rally.backTo(0)
    expect(rally.strokes).toHaveLength(0)
    expect(position.ball('white')!.x).toBe(1)
    expect(rally.isTheirTurn).toBe(false)
  })

  it('plays one stroke at a time, and a free aim as a pot when it is said to have gone in', async () => {
    const [rally, position] = [useRally(), useDraft()]
    position.setStroke({ free: true, aim: 33 })
    await Promise.all([rally.playOn('potted'), rally.playOn('as played')])
    expect(asked).toHaveLength(1)
    expect(asked[0].content.stroke.free).toBe(false)
  })
})
