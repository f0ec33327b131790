import { computed } from 'vue'
import { ask, client } from '../../api/client'
import { problemWords } from '../../lib/problemWords'
import { useAnswer } from '../../lib/useAnswer'
import type { ClubPlayer } from '../../position/club'

/** The curves are many thousand strokes: asked for once the hand rests, ms. */
const rest = 300

/** What a player is at the table: where ten of his balls go, and how his chances fall. Asked for while it is shown. */
export function useSkill(player: () => ClubPlayer) {
  const drawing = useAnswer({
    question: player,
    ask: (body, signal) => ask(client.POST('/api/player/picture', { body, signal })),
    keepAs: 'picture',
  })
  const plotting = useAnswer({
    question: player,
    ask: (body, signal) => ask(client.POST('/api/player/curves', { body, signal })),
    rest,
    keepAs: 'curves',
  })
  return {
    pictures: computed(() => drawing.answer.value ?? []),
    curves: computed(() => plotting.answer.value ?? []),
    pictureRefusal: computed(() => (drawing.problem.value ? problemWords(drawing.problem.value) : '')),
    curveRefusal: computed(() => (plotting.problem.value ? problemWords(plotting.problem.value) : '')),
    isBusy: computed(() => drawing.isBusy.value || plotting.isBusy.value),
  }
}
