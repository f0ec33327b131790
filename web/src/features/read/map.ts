import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Content, type Schemas } from '../../api/client'
import { usePlayer } from '../../position/player'
import { useLatest } from '../../lib/useLatest'
import { copy } from '../../domain/strokes'
import { useDraft } from '../../position/draft'

export type PositionMap = Schemas['MapResult']
export type Quality = Schemas['QualityResult']

/** Where to be for the next ball: the map over the plan, and what the place under the pointer is worth. */
export const useMap = defineStore('map', () => {
  const position = useDraft()
  const players = usePlayer()
  const isOpen = ref(false)
  /** after: what is on after the pot that is set up; on: what is on now; red; or a ball's id. */
  const target = ref('after')
  const map = shallowRef<PositionMap | null>(null)
  const place = shallowRef<{ x: number; y: number } | null>(null)
  const quality = shallowRef<Quality | null>(null)
  const problem = shallowRef<Problem | null>(null)

  const body = () => ({
    content: copy<Content>(position.content),
    player: copy(players.player),
    target: target.value === 'after' || target.value === 'on' ? null : target.value,
    afterPot: target.value !== 'on' && !!position.stroke.pot && position.stroke.pot.ball !== target.value,
  })
  const draw = useLatest(async () => {
    try {
      map.value = await ask(client.POST('/api/position-map', { body: body() }))
      problem.value = null
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      problem.value = e
      map.value = null
    }
  })
  const look = useLatest(async () => {
    if (!place.value || !isOpen.value) return
    try {
      quality.value = await ask(client.POST('/api/position-at', { body: { ...body(), ...place.value } }))
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      quality.value = null
    }
  })

  /** Not at every pixel on the way: once the pointer rests. */
  const lookSoon = useDebounceFn(() => void look(), 120)

  const question = computed(() => JSON.stringify([isOpen.value, target.value, position.content, players.player]))
  const drawSoon = useDebounceFn(() => {
    if (isOpen.value) void draw()
  }, 120)
  watch(question, () => {
    if (isOpen.value) void drawSoon()
    else map.value = quality.value = null
  })

  /** The pointer is over a place of the plan, or has left it. */
  function pointAt(at: { x: number; y: number } | null) {
    if (!isOpen.value) return
    const reference = position.reference!
    place.value = at && at.x >= 0 && at.y >= 0 && at.x <= reference.length && at.y <= reference.width ? at : null
    if (place.value) void lookSoon()
    else quality.value = null
  }

  return { isOpen, target, map, place, quality, problem, pointAt }
})
