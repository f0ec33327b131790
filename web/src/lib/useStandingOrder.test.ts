import { describe, expect, it } from 'vitest'
import { effectScope, nextTick, shallowRef } from 'vue'
import { useStandingOrder } from './useStandingOrder'

type Line = { id: string; value: number; stroke: string }
const line = (id: string, value: number, stroke = 'plain'): Line => ({ id, value, stroke })

describe('a list that comes in piece by piece', () => {
  const begin = () => {
    const told = shallowRef<Line[]>([line('a', 3), line('b', 2)])
    const list = effectScope().run(() =>
      useStandingOrder(
        () => told.value,
        (l) => l.id,
        (l) => l.stroke,
      ),
    )!
    return { told, list, ids: () => list.lines.value.map((l) => l.id) }
  }

  it('stands in the order in which it is told', async () => {
    const { told, ids } = begin()
    told.value = [line('c', 5), line('a', 3), line('b', 2)]
    await nextTick()
    expect(ids()).toEqual(['c', 'a', 'b'])
  })

  it('keeps its places under the pointer, with new figures, and announces a better one', async () => {
    const { told, list, ids } = begin()
    list.isHeld.value = true
    told.value = [line('c', 5), line('b', 4), line('a', 3)]
    await nextTick()
    expect(ids()).toEqual(['a', 'b', 'c'])
    expect(list.lines.value.map((l) => l.value)).toEqual([3, 4, 5])
    expect(list.better.value?.id).toBe('c')
    list.isHeld.value = false
    await nextTick()
    expect([ids(), list.better.value]).toEqual([['c', 'b', 'a'], null])
  })

  it('keeps the line that is chosen though it is told no more, until the order is taken as it is', async () => {
    const { told, list, ids } = begin()
    list.choose('a')
    told.value = [line('c', 5), line('b', 2)]
    await nextTick()
    told.value = [line('d', 6), line('c', 5)]
    await nextTick()
    expect(ids()).toEqual(['a', 'c', 'd'])
    expect(list.better.value?.id).toBe('d')
    list.settle()
    await nextTick()
    expect([ids(), list.chosen.value]).toEqual([['d', 'c'], ''])
  })

  it('keeps the stroke of the line that is chosen, with newer figures, and announces a better stroke for the same idea', async () => {
    const { told, list } = begin()
    list.choose('a')
    told.value = [line('a', 4), line('b', 2)]
    await nextTick()
    expect([list.lines.value[0], list.better.value]).toEqual([line('a', 4), null])
    told.value = [line('a', 5, 'screw'), line('b', 2)]
    await nextTick()
    expect(list.lines.value[0]).toEqual(line('a', 4))
    expect(list.better.value).toEqual(line('a', 5, 'screw'))
    list.settle()
    expect(list.lines.value[0]).toEqual(line('a', 5, 'screw'))
  })

  it('announces nothing when another line than the best was chosen', async () => {
    const { told, list, ids } = begin()
    list.choose('b')
    told.value = [line('a', 3), line('b', 1)]
    await nextTick()
    expect([ids(), list.better.value]).toEqual([['a', 'b'], null])
  })
})
