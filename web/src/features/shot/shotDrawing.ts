import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { useView } from '../../position/view'
import { nameOf } from '../../domain/balls'
import type { Naming } from '../../table/labels'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'

import { useEventList } from './eventList'

type Point = { x: number; y: number }

function travelled(list: Point[]) {
  let sum = 0
  for (let i = 1; i < list.length; i++) sum += Math.hypot(list[i].x - list[i - 1].x, list[i].y - list[i - 1].y)
  return sum
}

/** What is drawn of the shot that is set up: the ways of the balls, where they stop, and what happens on the way. */
export const useShotDrawing = createSharedComposable(() => {
  const answer = useShot()
  const position = useDraft()
  const view = useView()

  const white = computed(() => (view.ahead ? undefined : position.ball('white')))
  const simulation = computed(() => (view.isShotHidden || view.isCovered ? null : (answer.shot?.simulation ?? null)))
  const cut = computed(() => (view.isShotHidden ? null : (answer.shot?.cut ?? null)))

  const whitePath = computed(() => {
    const all = simulation.value?.paths.find((p) => p.id === 'white')?.points ?? []
    const hit =
      simulation.value?.events.find((e) => e.kind === 'ball' && e.ball === 'white') ??
      simulation.value?.events.find((e) => e.kind === 'ball' && e.other === 'white')
    const split = hit ? all.findIndex((p) => p.time >= hit.time - 1e-9) : -1
    return split < 0 ? { before: all, after: [] } : { before: all.slice(0, split + 1), after: all.slice(split) }
  })
  /** Of an opened pack only who goes farther than can be seen beside the ball itself: it stirs many. */
  const otherPaths = computed(() => {
    const moved = (simulation.value?.paths ?? []).filter((p) => p.id !== 'white' && travelled(p.points) > 0.01)
    return moved.length <= 6 ? moved : moved.filter((p) => travelled(p.points) > position.reference!.ballRadius)
  })
  const finals = computed(() =>
    (simulation.value?.finals ?? []).filter(
      (f) =>
        !f.pocket &&
        (f.id === 'white' ? simulation.value!.paths.some((p) => p.id === 'white') : otherPaths.value.some((p) => p.id === f.id)),
    ),
  )
  const events = computed(() => (simulation.value ? useEventList().marked : []))

  const namings = computed(() => {
    const list: Naming[] = []
    const whiteEnd = finals.value.find((f) => f.id === 'white')
    if (whiteEnd) list.push({ key: 'white', kind: 'strong', text: 'white stops', at: whiteEnd })
    const leg = cut.value?.legs[cut.value.legs.length - 1]
    if (leg)
      list.push({ key: 'pot', kind: 'brass', text: 'potting line', at: { x: (leg.fromX + leg.toX) / 2, y: (leg.fromY + leg.toY) / 2 } })
    for (const p of otherPaths.value.length <= 4 ? otherPaths.value : []) {
      const final = finals.value.find((f) => f.id === p.id)
      if (final) list.push({ key: p.id, kind: '', text: `${nameOf(p.id)} stops`, at: final })
    }
    return list
  })
  const numbers = computed(() =>
    events.value.map((e): Naming => ({ key: `event${e.number}`, kind: 'number', text: String(e.number), at: e, size: 46 })),
  )
  /** The lines that no label should lie on. */
  const lines = computed<Point[][]>(() => [
    [...whitePath.value.before, ...whitePath.value.after],
    ...(cut.value?.legs ?? []).map((l) => [
      { x: l.fromX, y: l.fromY },
      { x: l.toX, y: l.toY },
    ]),
  ])

  /** Reds that the outcome and the events speak of. */
  const named = computed(() => {
    const met = simulation.value?.events.filter((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white')).slice(0, 3) ?? []
    return [
      ...(cut.value ? [cut.value.ball, cut.value.struck] : []),
      ...met.flatMap((e) => [e.ball, e.other ?? '']),
      ...finals.value.map((f) => f.id),
    ]
  })

  return { named, white, cut, whitePath, otherPaths, finals, events, namings, numbers, lines }
})
