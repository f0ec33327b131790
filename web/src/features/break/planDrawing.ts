import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { isRed, nameOf } from '../../domain/balls'
import { highestOfWidest, type Naming } from '../../table/labels'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { useMap } from '../read/map'
import { usePlans } from './plans'

/** What is drawn of a plan and of where to be. */
export const usePlanDrawing = createSharedComposable(() => {
  const answer = useAnswer()
  const position = useDraft()
  const plans = usePlans()
  const map = useMap()

  /** The shot of the plan that is looked at. */
  const planned = computed(() => plans.shown)
  const pot = computed(() => {
    const wanted = planned.value?.choice.stroke.pot
    const ball = planned.value?.content.balls.find((b) => b.id === wanted?.ball)
    const pocket = answer.table?.pockets.find((p) => p.name === wanted?.pocket)
    return ball && pocket ? { x1: ball.x, y1: ball.y, x2: pocket.drop.x, y2: pocket.drop.y } : null
  })
  /** Then the desk draws it already, with all that happens. */
  const isSetUp = computed(() => {
    const [a, b] = [planned.value?.choice.stroke, position.stroke]
    return !plans.ahead && !!a && !b.free && a.pot?.ball === b.pot?.ball && a.pot?.pocket === b.pot?.pocket && a.height === b.height && a.side === b.side && a.pace === b.pace
  })
  /** Looking at a shot of a plan, the desk's own shot is out of the way unless it is the same. */
  const isDeskHidden = computed(() => !!planned.value && !isSetUp.value)

  const namings = computed(() => {
    const list: Naming[] = []
    if (planned.value) {
      const { path, choice, area } = planned.value
      if (!isSetUp.value) list.push({ key: 'planned', kind: 'fan', text: `shot ${plans.shot + 1} ends`, at: path[path.length - 1], size: 50 })
      const at = area.length ? highestOfWidest([area]) : undefined
      if (at && choice.next.ball) list.push({ key: 'area', kind: 'brass', text: isRed(choice.next.ball) ? 'for a red' : `for the ${nameOf(choice.next.ball)}`, at, size: 50 })
    }
    if (map.map?.best) list.push({ key: 'best', kind: 'brass', text: 'best place', at: map.map.best, size: 50 })
    return list
  })

  return { planned, pot, isSetUp, isDeskHidden, namings }
})
