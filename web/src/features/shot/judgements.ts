import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { problemWords } from '../../lib/problemWords'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'
import { useGoal } from '../../position/goal'

export type FanKind = Schemas['FanKind']
export type FanRange = Schemas['FanRange']
export type FanLine = Schemas['FanLineResult']
export type Spread = Schemas['SpreadAnswer']
export type ShotWindows = Schemas['ShotWindows']
export type KnobRange = Schemas['KnobRange']
export type Side = Schemas['SideChoiceResult']
/** How long the hand rests before what is costly is asked for, ms. */
const rest = 180

/** The other ways to play the shot, and where the white may stop: asked for only while they are shown, once the shot itself is answered. */
export const useJudgements = defineStore('judgements', () => {
  const shot = useShot()
  const position = useDraft()
  const players = usePlayer()
  const view = useView()
  const goal = useGoal()
  const fanKind = ref<FanKind | null>(null)
  /** Of the fan: the settings that are asked for, else a few usual ones; whether the aim stays; whether lines that do what is asked of the white are marked. */
  const fanRange = ref<FanRange | null>(null)
  const sameAim = ref(false)
  const marksGoal = ref(false)
  /** Something else stands in its place. */
  const hidesFan = ref(false)
  /** The line that is pointed at in a list, by its key. */
  const pointedLine = ref<string | null>(null)
  watch(fanKind, () => {
    fanRange.value = null
    pointedLine.value = null
  })
  const spreadOpen = ref(false)
  const sidesOpen = ref(false)
  /** Whether the spin that is left is marked along the white's way. */
  const spinOpen = useLocalStorage('deep-baize-spin', false)

  const isOpen = computed(() => view.step === 'shot' && !view.isCovered)
  const wantsGoal = computed(() => isOpen.value && view.shotView === 'there')
  const body = () => ({ content: shot.settled, player: players.player })
  const isAnswered = () => !!shot.shot

  // Two thousand strokes may take a second with a full pack: played once the hand rests, and dropped as soon as they are no longer wanted.
  const spreading = useAnswer({
    question: () => (spreadOpen.value && isOpen.value ? { ...body(), goal: wantsGoal.value ? goal.entry : null } : null),
    ask: (asked, signal) => ask(client.POST('/api/spread', { body: asked, signal })),
    isWanted: isAnswered,
    rest,
    keepAs: 'spread',
  })

  const fanning = useAnswer({
    question: () =>
      fanKind.value && isOpen.value && (position.stroke.pot || fanKind.value !== 'routes')
        ? {
            ...body(),
            kind: fanKind.value,
            range: fanRange.value,
            sameAim: sameAim.value && !!position.stroke.pot,
            goal: marksGoal.value ? goal.entry : null,
          }
        : null,
    ask: (asked, signal) => ask(client.POST('/api/fan', { body: asked, signal })),
    isWanted: isAnswered,
    rest,
    keepAs: 'fan',
  })

  const siding = useAnswer({
    question: () => (sidesOpen.value && position.stroke.pot ? body() : null),
    ask: (asked, signal) => ask(client.POST('/api/sides', { body: asked, signal })),
    isWanted: isAnswered,
    keepAs: 'sides',
  })

  // Quick enough to follow the hand: asked for as soon as the shot itself is answered.
  const wantsWindows = computed(
    () =>
      isOpen.value &&
      !!shot.asked &&
      (position.stroke.pot ? !!shot.shot?.cut : !!shot.shot?.simulation.events.some((e) => e.kind === 'ball')) &&
      (view.shotView === 'set-up' || wantsGoal.value),
  )
  const windowing = useAnswer({
    question: () => (wantsWindows.value ? { ...body(), goal: wantsGoal.value ? goal.entry : null } : null),
    ask: (asked, signal) => ask(client.POST('/api/shot/windows', { body: asked, signal })),
    isWanted: isAnswered,
    rest: 60,
  })

  const refusalOf = (of: { problem: typeof spreading.problem }) => computed(() => (of.problem.value ? problemWords(of.problem.value) : ''))
  return {
    fanKind,
    fanRange,
    sameAim,
    marksGoal,
    pointedLine,
    spreadOpen,
    sidesOpen,
    spinOpen,
    fan: computed<FanLine[]>(() => (fanKind.value && isOpen.value && !hidesFan.value ? (fanning.answer.value ?? []) : [])),
    hidesFan,
    isFanStale: fanning.isStale,
    spread: computed(() => (spreadOpen.value && isOpen.value ? spreading.answer.value : null)),
    isSpreadStale: spreading.isStale,
    windows: computed(() => (wantsWindows.value && !windowing.problem.value ? windowing.answer.value : null)),
    hasGoal: computed(() => wantsGoal.value && !!goal.entry),
    areWindowsStale: windowing.isStale,
    sides: siding.answer,
    isSidesStale: siding.isStale,
    isSampling: spreading.isBusy,
    spreadRefusal: refusalOf(spreading),
    fanRefusal: refusalOf(fanning),
    sidesRefusal: refusalOf(siding),
  }
})
