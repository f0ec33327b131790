import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { Reference, Shot } from '../../api/client'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useEventList } from './eventList'
import { useShotDrawing } from './shotDrawing'

const at = (time: number, x: number, y = 1) => ({ time, x, y })
const path = (id: string, ...points: object[]) => ({ id, points })
const final = (id: string, x: number, pocket: string | null = null) => ({ id, x, y: 1, pocket })
const event = (time: number, kind: string, ball: string, x: number, other: string | null = null, pocket: string | null = null) => ({
  time,
  kind,
  ball,
  other,
  x,
  y: 1,
  pocket,
  cushion: kind === 'cushion' ? 'top' : null,
})

describe('the drawing of a shot', () => {
  let scope: EffectScope
  const draw = (simulation: object, cut: object | null = null) => {
    useShot().shot = { simulation, cut } as unknown as Shot
    scope = effectScope()
    return scope.run(() => useShotDrawing())!
  }
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    vi.stubGlobal('fetch', async () => new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } }))
    useDraft().reference = { ballRadius: 0.02625 } as Reference
  })
  afterEach(() => {
    scope.stop()
    disposePinia(getActivePinia()!)
  })

  it('parts the white’s path where it first meets a ball, whoever ran into whom', () => {
    const paths = [path('white', at(0, 1), at(0.5, 1.5), at(1, 1.8))]
    expect(draw({ paths, events: [event(0.5, 'ball', 'white', 1.5, 'red-1')], finals: [] }).whitePath.value).toEqual({
      before: [at(0, 1), at(0.5, 1.5)],
      after: [at(0.5, 1.5), at(1, 1.8)],
    })
    scope.stop()
    expect(draw({ paths, events: [event(0.5, 'ball', 'red-1', 1.5, 'white')], finals: [] }).whitePath.value.before).toHaveLength(2)
    scope.stop()
    expect(draw({ paths, events: [], finals: [] }).whitePath.value.after).toEqual([])
  })

  it('leaves out, of an opened pack, who hardly stirs; and names where balls stop only while they are few', () => {
    const reds = (count: number, far: number) => Array.from({ length: count }, (_, i) => path(`red-${i + 1}`, at(0, 2), at(1, 2 + far)))
    const few = draw({ paths: reds(3, 0.02), events: [], finals: [final('red-1', 2.02), final('red-2', 2.02), final('red-3', 0, 'top')] })
    expect(few.otherPaths.value).toHaveLength(3)
    expect(few.namings.value.map((n) => n.text)).toEqual(['red 1 stops', 'red 2 stops'])
    scope.stop()
    const pack = draw({ paths: [...reds(8, 0.02), path('pink', at(0, 2.6), at(1, 2.9))], events: [], finals: [final('pink', 2.9)] })
    expect(pack.otherPaths.value.map((p) => p.id)).toEqual(['pink'])
  })

  it('numbers what the white does and the pots, and of several close together the first', () => {
    const drawing = draw({
      paths: [],
      finals: [],
      events: [
        event(0.1, 'ball', 'white', 2, 'red-1'),
        event(0.2, 'ball', 'white', 2.01, 'red-2'),
        event(0.3, 'ball', 'red-2', 2.5, 'red-3'),
        event(0.4, 'cushion', 'white', 3),
        event(0.5, 'pot', 'red-1', 3.55, null, 'green-top'),
      ],
    })
    // What matters: all but where it ends.
    expect(drawing.numbers.value.map((n) => n.text)).toEqual(['1', '2', '3'])
    useEventList().isAll = true
    expect(drawing.numbers.value.map((n) => n.text)).toEqual(['1', '4', '5'])
  })
})
