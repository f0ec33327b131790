import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'

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
    if (!isOpen.value) return
    const reference = position.reference!
    place.value = at && at.x >= 0 && at.y >= 0 && at.x <= reference.length && at.y <= reference.width ? at : null
  }

  return { isOpen, target, map, place, quality, problem, again, pointAt }
})
