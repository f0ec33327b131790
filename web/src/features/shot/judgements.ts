import { tryOnScopeDispose, useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, isAbort, Problem, type Schemas } from '../../api/client'
import { useLatest } from '../../lib/useLatest'
import { usePlayer } from '../../position/player'
import { copy, plainPot } from '../../domain/strokes'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { useGoal } from './goal'

export type PotOption = Schemas['PotOptionResult']
export type FanKind = Schemas['FanKind']
export type FanLine = Schemas['FanLineResult']
export type Spread = Schemas['SpreadAnswer']
export type Side = Schemas['SideChoiceResult']
/** How long the hand rests before what is costly is asked for, ms. */
const rest = 180

export type Below = 'happens' | 'on' | 'ways' | 'plan' | 'decide' | 'shots'

/** What is on, the other ways to play the shot, and where the white may stop: asked for only while it is shown. */
export const useJudgements = defineStore('judgements', () => {
  const answer = useAnswer()
  const position = useDraft()
  const players = usePlayer()
  const goal = useGoal()
  /** What the space below the plan shows. */
  const below = ref<Below>('happens')
  const listOpen = computed(() => below.value === 'on')
  const fanKind = ref<FanKind | null>(null)
  const spreadOpen = ref(false)
  const options = shallowRef<PotOption[] | null>(null)
  const fan = shallowRef<FanLine[]>([])
  const spread = shallowRef<Spread | null>(null)
  const isSampling = ref(false)
  /** The pot that is pointed at in the list. */
  const pointed = shallowRef<PotOption | null>(null)

  /** What was refused, by what was asked: told where the answer would stand. */
  const refusals = ref<Partial<Record<'read' | 'spread' | 'fan' | 'sides', string>>>({})

  /** Keeps what was there while a refused position is being mended, and says why there is nothing newer. */
  function kept<T>(what: keyof typeof refusals.value, job: () => Promise<T>, put: (value: T) => void) {
    return useLatest(async () => {
      try {
        put(await job())
        delete refusals.value[what]
      } catch (e) {
        if (isAbort(e)) return
        if (!(e instanceof Problem)) throw e
        refusals.value[what] = [e.message, e.detail, ...e.errors.map((f) => `${f.message} Allowed: ${f.allowed}.`)].filter(Boolean).join(' ')
      }
    })
  }

  const sides = shallowRef<Side[] | null>(null)
  const sidesOpen = ref(false)

  const body = () => ({ content: copy(position.content), player: copy(players.player) })
  const readOn = kept(
    'read',
    () => ask(client.POST('/api/read', { body: body() })),
    (list) => (options.value = list),
  )
  // Two thousand strokes may take a second with a full pack: played once the hand rests, and dropped as soon as they are no longer wanted.
  let sampling = new AbortController()
  const sampleSpread = kept(
    'spread',
    () => ask(client.POST('/api/spread', { body: { ...body(), goal: below.value === 'ways' ? goal.entry : null }, signal: sampling.signal })),
    (value) => (spread.value = value),
  )
  const spreadSoon = useDebounceFn(async () => {
    if (!spreadOpen.value) return
    const mine = (sampling = new AbortController())
    await sampleSpread()
    if (mine === sampling) isSampling.value = false
  }, rest)
  function readSpread() {
    sampling.abort()
    isSampling.value = spreadOpen.value
    if (spreadOpen.value) void spreadSoon()
    else spread.value = null
  }
  tryOnScopeDispose(() => sampling.abort())
  const readFan = kept(
    'fan',
    () => (position.stroke.pot && fanKind.value ? ask(client.POST('/api/fan', { body: { content: copy(position.content), kind: fanKind.value } })) : Promise.resolve([])),
    (lines) => (fan.value = lines),
  )

  const readSides = kept(
    'sides',
    () => ask(client.POST('/api/sides', { body: body() })),
    (list) => (sides.value = list),
  )

  // After the shot itself has been answered, so that the path under the finger always comes first.
  watch([() => answer.shot, listOpen], () => listOpen.value && void readOn())
  watch([() => answer.shot, spreadOpen, () => goal.entry, () => below.value === 'ways'], readSpread)
  watch([() => answer.shot, sidesOpen], () => sidesOpen.value && position.stroke.pot && void readSides())
  const fanSoon = useDebounceFn(() => void readFan(), rest)
  watch([() => answer.shot, fanKind], () => (fanKind.value ? void fanSoon() : (fan.value = [])))

  /** The pot with the part of an option that a stroke keeps. */
  const potOf = (cut: PotOption['cut']) => ({
    ...plainPot(cut.ball, cut.pocket),
    through: cut.kind === 'plant' || cut.kind === 'set' ? cut.struck : null,
    off: cut.off,
  })

  /** Sets up a pot from the list: at the pace it was judged at, the butt as high as it must be, and side by the player's habit. */
  function choose(option: PotOption) {
    const pot = potOf(option.cut)
    const helping = players.player.sideHabit === 'helping' && pot.through === null && Math.abs(option.cut.cutDegrees) > 10
    position.selected = option.cut.ball
    position.setStroke({
      pot,
      free: false,
      pace: Math.max(option.pace, position.stroke.pace),
      elevation: Math.max(position.stroke.elevation, option.reach.elevationDegrees),
      ...(helping ? { side: Math.sign(option.cut.cutDegrees) * position.reference!.touchOfSide } : {}),
    })
    position.commit()
    pointed.value = null
  }

  return { readNow: readOn, refusals, below, listOpen, fanKind, spreadOpen, sidesOpen, options, fan, spread, sides, isSampling, pointed, choose, potOf }
})
