import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { isRed, nameOf } from '../../domain/balls'
import { useShot } from '../../position/shot'
import { highestOfWidest, type Naming } from '../../table/labels'
import { usePlans, type NextBall } from './plans'

/** What is drawn of a plan: every shot of it, the present one strong. */
export const usePlanDrawing = createSharedComposable(() => {
  const answer = useShot()
  const plans = usePlans()

  /** Where each shot pots, and how the white comes on. */
  const shots = computed(() => {
    if (!plans.isOpen || !plans.chosen) return []
    return plans.chosen.shots.map((s, i) => {
      const wanted = s.choice.stroke.pot
      const ball = s.content.balls.find((b) => b.id === wanted?.ball)
      const pocket = answer.table?.pockets.find((p) => p.name === wanted?.pocket)
      return {
        number: i + 1,
        isShown: i === plans.shot,
        ball: wanted?.ball ?? '',
        pot:
          ball && pocket
            ? [
                { x: ball.x, y: ball.y },
                { x: pocket.drop.x, y: pocket.drop.y },
              ]
            : [],
        path: s.path,
        area: s.area,
      }
    })
  })
  /** The shot that is looked at. */
  const present = computed(() => shots.value.find((s) => s.isShown) ?? null)
  const others = computed(() => shots.value.filter((s) => !s.isShown))

  /** The ball to play for that is pointed at: where to be for it, and the white's way there. */
  const next = computed(() => (plans.isOpen ? plans.shownNext : null))

  const namings = computed(() => {
    const list: Naming[] = []
    const place = next.value?.area.length ? highestOfWidest([next.value.area]) : undefined
    if (place) list.push({ key: 'next', kind: 'brass', text: `for the ${nameOf(next.value!.ball)}`, at: place, size: 50 })
    for (const s of shots.value)
      if (s.pot.length)
        list.push({
          key: `pot${s.number}`,
          kind: s.isShown ? 'brass strong' : 'brass',
          text: String(s.number),
          at: middle(s.pot),
          size: s.isShown ? 62 : 50,
        })
    const shown = plans.shown
    if (shown && present.value) {
      if (!plans.isSetUp)
        list.push({
          key: 'planned',
          kind: 'fan',
          text: `shot ${present.value.number} ends`,
          at: shown.path[shown.path.length - 1],
          size: 50,
        })
      const at = shown.area.length ? highestOfWidest([shown.area]) : undefined
      const next = shown.choice.next.ball
      if (at && next) list.push({ key: 'area', kind: 'brass', text: isRed(next) ? 'for a red' : `for the ${nameOf(next)}`, at, size: 50 })
    }
    return list
  })
  const middle = ([a, b]: { x: number; y: number }[]) => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })
  const lines = computed(() => [...shots.value.flatMap((s) => [s.path, s.pot]), ...(next.value ? [next.value.path] : [])])
  const named = computed(() => [
    ...shots.value.map((s) => s.ball),
    ...(plans.nextAsked ? (plans.nextBalls?.balls ?? []).map((b: NextBall) => b.ball) : []),
  ])

  return { present, others, next, namings, lines, named }
})
