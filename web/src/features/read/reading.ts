import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, type Cut, type Schemas } from '../../api/client'
import { isSamePot, plainPot } from '../../domain/strokes'
import { useAnswer } from '../../lib/useAnswer'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'

export type PotOption = Schemas['PotOptionResult']

/** What is on: every pot with its chance, asked for only while it is shown. */
export const useReading = defineStore('reading', () => {
  const position = useDraft()
  const shot = useShot()
  const players = usePlayer()
  const view = useView()
  /** The pot that is pointed at in the list. */
  const pointed = shallowRef<PotOption | null>(null)
  const isOpen = computed(() => view.step === 'read')

  /** The stroke that the list is judged with: not one that was chosen from the list, so that looking exchanges nothing. */
  const judged = shallowRef({ ...position.stroke })
  const chosenStroke = ref('')
  watch(
    () => JSON.stringify(shot.settled.stroke),
    (now) => {
      if (now !== chosenStroke.value) judged.value = JSON.parse(now) as typeof judged.value
    },
    { immediate: true },
  )

  const {
    answer: options,
    problem,
    isStale,
    again,
  } = useAnswer({
    // The list depends on how the stroke is struck, and not on the pot that it is for.
    question: () => ({ content: { ...shot.settled, stroke: { ...judged.value, pot: null, aim: 0, free: true } }, player: players.player }),
    ask: (body, signal) => ask(client.POST('/api/read', { body, signal })),
    isWanted: () => isOpen.value && shot.settled.balls.length > 0,
    keepAs: 'read',
  })
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
    position.look({
      pot,
      free: false,
      pace: Math.max(option.pace, position.stroke.pace),
      height: option.heightTips,
      // As the cue lies clears what is in its way; one that is set is raised as far as it must be.
      elevation: position.stroke.elevation === null ? null : Math.max(position.stroke.elevation, option.reach.elevationDegrees),
      ...(helping ? { side: Math.sign(option.cut.cutDegrees) * position.reference!.touchOfSide } : {}),
    })
    chosenStroke.value = JSON.stringify(position.stroke)
    pointed.value = null
  }

  return { options, pointed, isOpen, judged, problem, isStale, again, choose, isChosen }
})
