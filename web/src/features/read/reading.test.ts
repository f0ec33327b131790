import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Reference } from '../../api/client'
import { usePlayer } from '../../position/player'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useView } from '../../position/view'
import { type PotOption, useReading } from './reading'
import { eventually } from '../../lib/eventually.fixture'

const option = (cutDegrees: number, change: object = {}) =>
  ({
    cut: { ball: 'red-1', pocket: 'yellow', struck: 'red-1', kind: 'single', off: null, cutDegrees, ...change },
    pace: 5,
    reach: { elevationDegrees: 8 },
  }) as unknown as PotOption

describe('what is on', () => {
  let asked: { path: string; body: Record<string, unknown>; signal: AbortSignal }[]
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    asked = []
    vi.stubGlobal('fetch', async (request: Request) => {
      asked.push({ path: new URL(request.url).pathname, body: JSON.parse((await request.text()) || '{}'), signal: request.signal })
      return new Response('[]', { status: 200, headers: { 'Content-Type': 'application/json' } })
    })
    useShot()
    const position = useDraft()
    position.reference = { touchOfSide: 0.5 } as Reference
    position.reset(
      {
        name: 'a',
        about: '',
        content: {
          balls: [
            { id: 'white', x: 1, y: 1 },
            { id: 'red-1', x: 2, y: 1 },
          ],
          stroke: { ...plainStroke, pace: 3, pot: plainPot('red-1', 'green-top') },
          conditions: {},
        },
      },
      null,
    )
  })
  afterEach(() => disposePinia(getActivePinia()!))

  it('is asked for only while it is shown, once the shot itself is answered, and says why when it is refused', async () => {
    const reading = useReading()
    await eventually(() => expect(useShot().shot).toBeTruthy())
    expect(asked.map((a) => a.path)).not.toContain('/api/read')
    useView().go('read')
    await eventually(() => expect(reading.options).toEqual([]))
    const problem = { title: 'No.', detail: '', errors: [{ field: 'balls[1]', message: 'Two balls overlap.', allowed: 'apart' }] }
    vi.stubGlobal(
      'fetch',
      async () => new Response(JSON.stringify(problem), { status: 400, headers: { 'Content-Type': 'application/json' } }),
    )
    useDraft().content.balls[1].x = 1.02
    await eventually(() => expect(reading.problem?.errors[0].message).toBe('Two balls overlap.'))
    vi.stubGlobal('fetch', async () => new Response('[]', { status: 200, headers: { 'Content-Type': 'application/json' } }))
    useDraft().content.balls[1].x = 2.1
    await eventually(() => expect(reading.problem).toBeNull())
  })

  it('set up a pot at the pace it was judged at, with the butt as it lies, or as high as it must be', () => {
    useShot()
    const position = useDraft()
    useReading().choose(option(25))
    expect(position.stroke).toMatchObject({ pace: 5, elevation: null, side: 0, free: false, pot: plainPot('red-1', 'yellow') })
    position.setStroke({ elevation: 0 })
    useReading().choose(option(25))
    expect(position.stroke).toMatchObject({ elevation: 8 })
    position.setStroke({ pace: 7, elevation: 20 })
    useReading().choose(option(25))
    expect(position.stroke).toMatchObject({ pace: 7, elevation: 20 })
  })

  it('add a touch of helping side on cuts for a player who plays so, towards the side that turns the ball', () => {
    useShot()
    const position = useDraft()
    usePlayer().player.sideHabit = 'helping'
    for (const [cut, side] of [
      [25, 0.5],
      [-25, -0.5],
    ]) {
      useReading().choose(option(cut))
      expect(position.stroke.side).toBe(side)
    }
    position.setStroke({ side: 0 })
    useReading().choose(option(6))
    expect(position.stroke.side).toBe(0)
    useReading().choose(option(25, { kind: 'plant', struck: 'red-2' }))
    expect(position.stroke).toMatchObject({ side: 0, pot: { through: 'red-2' } })
  })
})
