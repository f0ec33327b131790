import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { ask, client, type Cut, type Schemas } from '../../api/client'
import { copy, isSamePot, plainPot } from '../../domain/strokes'
import { useJudged } from '../../lib/useJudged'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'

export type PotOption = Schemas['PotOptionResult']

/** What is on: every pot with its chance, asked for only while it is shown. */
export const useReading = defineStore('reading', () => {
  const position = useDraft()
  const answer = useAnswer()
  const players = usePlayer()
  const view = useView()
  const options = shallowRef<PotOption[] | null>(null)
  /** The pot that is pointed at in the list. */
  const pointed = shallowRef<PotOption | null>(null)
  const isOpen = computed(() => view.step === 'read')

  const { refusal, ask: read } = useJudged(
    () => ask(client.POST('/api/read', { body: { content: copy(position.content), player: copy(players.player) } })),
    (list) => (options.value = list),
  )
  // After the shot itself has been answered, so that the path under the finger always comes first.
  watch([() => answer.shot, isOpen], () => isOpen.value && void read(), { immediate: true })
  watch(isOpen, () => (pointed.value = null))

  /** The pot with the part of an option that a stroke keeps. */
  const potOf = (cut: Cut) => ({
    ...plainPot(cut.ball, cut.pocket),
    through: cut.kind === 'plant' || cut.kind === 'set' ? cut.struck : null,
    off: cut.off,
  })
  const isChosen = (option: PotOption) => isSamePot(position.stroke.pot, potOf(option.cut))

  /** Sets up a pot from the list: at the pace it was judged at, the butt as high as it must be, and side by the player's habit. */
  function choose(option: PotOption) {
    const pot = potOf(option.cut)
    const helping = players.player.sideHabit === 'helping' && pot.through === null && Math.abs(option.cut.cutDegrees) > 10
    position.selected = option.cut.ball
    position.setStroke({
      pot,
      free: false,
      pace: Math.max(option.pace, position.stroke.pace),
      height: option.heightTips,
      // As the cue lies clears what is in its way; one that is set is raised as far as it must be.
      elevation: position.stroke.elevation === null ? null : Math.max(position.stroke.elevation, option.reach.elevationDegrees),
      ...(helping ? { side: Math.sign(option.cut.cutDegrees) * position.reference!.touchOfSide } : {}),
    })
    position.commit()
    pointed.value = null
  }

  return { options, pointed, isOpen, refusal, choose, isChosen }
})
