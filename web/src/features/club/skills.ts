import { useDebounceFn } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { useJudged } from '../../lib/useJudged'
import type { ClubPlayer } from '../../position/club'

/** What a player is at the table: where ten of his balls go, and how his chances fall. Asked for while it is shown. */
export function useSkill(player: () => ClubPlayer) {
  const pictures = shallowRef<Schemas['PicturedShot'][]>([])
  const curves = shallowRef<Schemas['SkillCurve'][]>([])
  const {
    refusal: pictureRefusal,
    isBusy: isDrawing,
    ask: draw,
  } = useJudged(
    () => ask(client.POST('/api/player/picture', { body: player() })),
    (shots) => (pictures.value = shots),
  )
  const {
    refusal: curveRefusal,
    isBusy: isPlotting,
    ask: plot,
  } = useJudged(
    () => ask(client.POST('/api/player/curves', { body: player() })),
    (list) => (curves.value = list),
  )
  // The curves are many thousand strokes: once the hand rests.
  const plotSoon = useDebounceFn(() => void plot(), 300)
  watch(
    () => {
      const { hand, height, skill, own } = player()
      return JSON.stringify([hand, height, skill, own])
    },
    () => {
      void draw()
      void plotSoon()
    },
    { immediate: true },
  )
  const isBusy = computed(() => isDrawing.value || isPlotting.value)
  return { pictures, curves, pictureRefusal, curveRefusal, isBusy }
}
