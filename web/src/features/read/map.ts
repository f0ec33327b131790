import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { useGoal } from '../../position/goal'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'

export type PositionMap = Schemas['MapResult']
export type Quality = Schemas['QualityResult']

/** How long the hand, or the pointer on its way, rests before it is asked, ms. */
const rest = 120

/** Where to be for the next ball: the map over the plan, and what the place under the pointer is worth. */
export const useMap = defineStore('map', () => {
  const position = useDraft()
  const players = usePlayer()
  const isOpen = ref(false)
  /** after: what is on after the pot that is set up; on: what is on now; red; or a ball's id. */
  const target = ref('after')
  const place = shallowRef<{ x: number; y: number } | null>(null)

  const body = () => ({
    content: position.content,
    player: players.player,
    target: target.value === 'after' || target.value === 'on' ? null : target.value,
    afterPot: target.value !== 'on' && !!position.stroke.pot && position.stroke.pot.ball !== target.value,
  })
  const {
    present: map,
    problem,
    again,
  } = useAnswer({
    question: () => (isOpen.value ? body() : null),
    ask: (asked, signal) => ask(client.POST('/api/position-map', { body: asked, signal })),
    rest,
    keepAs: 'map',
  })

  /** Not every pixel on the way: the place where the pointer rests. */
  const rested = shallowRef<{ x: number; y: number } | null>(null)
  const restSoon = useDebounceFn(() => (rested.value = place.value), rest)
  watch(place, (at) => (at ? void restSoon() : (rested.value = null)))
  const { present: quality } = useAnswer({
    question: () => (isOpen.value && place.value && rested.value ? { ...body(), ...rested.value } : null),
    ask: (asked, signal) => ask(client.POST('/api/position-at', { body: asked, signal })),
  })

  /** The pointer is over a place of the plan, or has left it. */
  function pointAt(at: { x: number; y: number } | null) {
    if (!isOpen.value || !at) return
    const reference = position.reference!
    // Once the pointer has left the bed, the last place stays what is spoken of: there are buttons about it beside the plan.
    if (at.x >= 0 && at.y >= 0 && at.x <= reference.length && at.y <= reference.width) place.value = at
  }

  watch([isOpen, () => JSON.stringify(position.tableAsked)], () => (place.value = null))

  const goals = useGoal()
  const view = useView()
  /** Asks for the ways of the white to a place, with the pot that is set up. */
  function waysTo(at: { x: number; y: number }) {
    const toMillimetre = (v: number) => Math.round(v * 1000) / 1000
    Object.assign(goals.goal, { kind: 'stop', place: { x: toMillimetre(at.x), y: toMillimetre(at.y) } })
    view.go('shot', 'there')
  }

  return { waysTo, isOpen, target, map, place, quality, problem, again, pointAt }
})
