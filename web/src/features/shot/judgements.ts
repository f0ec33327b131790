import { tryOnScopeDispose, useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { copy } from '../../domain/strokes'
import { useJudged } from '../../lib/useJudged'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'
import { useGoal } from './goal'

export type FanKind = Schemas['FanKind']
export type FanLine = Schemas['FanLineResult']
export type Spread = Schemas['SpreadAnswer']
export type Side = Schemas['SideChoiceResult']
/** How long the hand rests before what is costly is asked for, ms. */
const rest = 180

/** The other ways to play the shot, and where the white may stop: asked for only while they are shown. */
export const useJudgements = defineStore('judgements', () => {
  const answer = useAnswer()
  const position = useDraft()
  const players = usePlayer()
  const view = useView()
  const goal = useGoal()
  const fanKind = ref<FanKind | null>(null)
  const spreadOpen = ref(false)
  const sidesOpen = ref(false)
  const fan = shallowRef<FanLine[]>([])
  const spread = shallowRef<Spread | null>(null)
  const sides = shallowRef<Side[] | null>(null)
  const isSampling = ref(false)

  const body = () => ({ content: copy(position.content), player: copy(players.player) })
  const isOpen = computed(() => view.step === 'shot')
  const wantsGoal = computed(() => isOpen.value && view.shotView === 'there')

  // Two thousand strokes may take a second with a full pack: played once the hand rests, and dropped as soon as they are no longer wanted.
  let sampling = new AbortController()
  const { refusal: spreadRefusal, ask: sampleSpread } = useJudged(
    () => ask(client.POST('/api/spread', { body: { ...body(), goal: wantsGoal.value ? goal.entry : null }, signal: sampling.signal })),
    (value) => (spread.value = value),
  )
  const spreadWanted = computed(() => spreadOpen.value && isOpen.value)
  const spreadSoon = useDebounceFn(async () => {
    if (!spreadWanted.value) return
    const mine = (sampling = new AbortController())
    await sampleSpread()
    if (mine === sampling) isSampling.value = false
  }, rest)
  function readSpread() {
    sampling.abort()
    isSampling.value = spreadWanted.value
    if (spreadWanted.value) void spreadSoon()
    else spread.value = null
  }
  tryOnScopeDispose(() => sampling.abort())

  const fanWanted = computed(() => (isOpen.value ? fanKind.value : null))
  const { refusal: fanRefusal, ask: readFan } = useJudged(
    () =>
      position.stroke.pot && fanWanted.value
        ? ask(client.POST('/api/fan', { body: { content: copy(position.content), kind: fanWanted.value } }))
        : Promise.resolve([]),
    (lines) => (fan.value = lines),
  )
  const fanSoon = useDebounceFn(() => void readFan(), rest)

  const { refusal: sidesRefusal, ask: readSides } = useJudged(
    () => ask(client.POST('/api/sides', { body: body() })),
    (list) => (sides.value = list),
  )

  // After the shot itself has been answered, so that the path under the finger always comes first.
  watch([() => answer.shot, spreadWanted, () => goal.entry, wantsGoal], readSpread)
  watch([() => answer.shot, sidesOpen], () => sidesOpen.value && position.stroke.pot && void readSides())
  watch([() => answer.shot, fanWanted], () => (fanWanted.value ? void fanSoon() : (fan.value = [])))

  return { fanKind, spreadOpen, sidesOpen, fan, spread, sides, isSampling, spreadRefusal, fanRefusal, sidesRefusal }
})
