import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { problemWords } from '../../lib/problemWords'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'
import { useGoal } from '../../position/goal'

export type FanKind = Schemas['FanKind']
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
  const spreadOpen = ref(false)
  const sidesOpen = ref(false)

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
    question: () => (fanKind.value && isOpen.value && position.stroke.pot ? { content: shot.settled, kind: fanKind.value } : null),
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
    () => isOpen.value && !!shot.asked && !!shot.shot?.cut && !!position.stroke.pot && (view.shotView === 'set-up' || wantsGoal.value),
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
    spreadOpen,
    sidesOpen,
    fan: computed<FanLine[]>(() => (fanKind.value && isOpen.value ? (fanning.answer.value ?? []) : [])),
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
