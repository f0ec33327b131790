import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { paceWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { firstOfWidest, type Naming } from '../../table/labels'
import { useGoal } from '../../position/goal'
import { useJudgements } from './judgements'
import { useWays } from './ways'

/** What is drawn around the shot that is set up: the same pot played otherwise, where the white may stop, and the ways to put it there. */
export const useJudgedDrawing = createSharedComposable(() => {
  const judgements = useJudgements()
  const position = useDraft()
  const goals = useGoal()
  const ways = useWays()

  /** Ways that are pointed at, or laid beside one another. */
  const shownWays = computed(() => {
    if (!ways.isOpen) return []
    const shown = [
      { way: ways.a, label: 'A', key: 'a' },
      { way: ways.b, label: 'B', key: 'b' },
    ]
    const pointed = ways.byKey(ways.pointed)
    if (pointed && pointed !== ways.a && pointed !== ways.b) shown.push({ way: pointed, label: 'this way', key: 'pointed' })
    return shown.flatMap(({ way, label, key }) =>
      way ? [{ key, label, mirror: way.mirror, points: way.points, end: way.points[way.points.length - 1] }] : [],
    )
  })
  /** Where the white should stop, while that is what is asked. */
  const place = computed(() => (ways.isOpen && goals.goal.kind === 'stop' ? goals.goal.place : null))

  /** What a line of the fan is called: a route by its name, else what is changed. */
  function fanWords({ key, pace }: { key: string; pace: number }) {
    const what = { routes: '', paces: 'pace ', heights: 'height ', sides: 'side ' }[judgements.fanKind ?? 'routes']
    // At a soft pace the white arrives rolling: a route that needs more is drawn with what it needs, and says so.
    const firmer = judgements.fanKind === 'routes' && pace > position.stroke.pace + 0.1 ? ` (${paceWords(pace)})` : ''
    return what + key.replace('-', '−') + firmer
  }

  const namings = computed(() => {
    const list: Naming[] = []
    for (const f of judgements.fan)
      list.push({
        key: `fan${f.key}`,
        kind: 'fan',
        text: fanWords(f) + (f.potted ? '' : ' (missed)'),
        at: f.points[f.points.length - 1],
        size: 50,
      })
    for (const w of shownWays.value) {
      list.push({ key: `way${w.key}`, kind: 'fan', text: w.label, at: w.end, size: 54 })
      if (w.mirror.length)
        list.push({
          key: `mirror${w.key}`,
          kind: 'brass',
          text: shownWays.value.length > 1 ? `${w.label} as in a mirror` : 'as in a mirror',
          at: w.mirror[1],
          size: 46,
        })
    }
    if (place.value)
      list.push({ key: 'goal', kind: 'brass', text: 'stop here', at: { x: place.value.x, y: place.value.y + goals.goal.radius }, size: 50 })
    for (const [key, words, outlines] of [
      ['thick', 'missed thick', judgements.spread?.thickLeaves],
      ['thin', 'missed thin', judgements.spread?.thinLeaves],
    ] as const) {
      const at = firstOfWidest(outlines ?? [])
      if (at) list.push({ key, kind: 'missed', text: words, at, size: 46 })
    }
    return list
  })

  /** Lines that no label should lie on. */
  const lines = computed(() => [...judgements.fan.map((f) => f.points), ...shownWays.value.flatMap((w) => [w.points, w.mirror])])

  return { shownWays, place, namings, lines }
})
