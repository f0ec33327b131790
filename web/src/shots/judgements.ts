import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Schemas } from '../api/client'
import { useLatest } from '../workspace/useLatest'
import { copy, useWorkspace } from '../workspace/workspace'

export type PotOption = Schemas['PotOptionResult']
export type FanKind = Schemas['FanKind']
export type FanLine = Schemas['FanLineResult']
export type Spread = Schemas['SpreadAnswer']

/** What is on, the other ways to play the shot, and where the white may stop: asked for only while it is shown. */
export const useJudgements = defineStore('judgements', () => {
  const workspace = useWorkspace()
  const skill = useLocalStorage('deep-baize-skill', 'county')
  const listOpen = ref(false)
  const fanKind = ref<FanKind | null>(null)
  const spreadOpen = ref(false)
  const options = shallowRef<PotOption[] | null>(null)
  const fan = shallowRef<FanLine[]>([])
  const spread = shallowRef<Spread | null>(null)
  const isSampling = ref(false)
  /** The pot that is pointed at in the list. */
  const pointed = shallowRef<PotOption | null>(null)

  /** Keeps what was there while a refused position is being mended: the plan says what is wrong with it. */
  function kept<T>(job: () => Promise<T>, put: (value: T) => void) {
    return useLatest(async () => {
      try {
        put(await job())
      } catch (e) {
        if (!(e instanceof Problem)) throw e
      }
    })
  }

  const body = () => ({ content: copy(workspace.content), skill: skill.value })
  const readOn = kept(
    () => ask(client.POST('/api/read', { body: body() })),
    (list) => (options.value = list),
  )
  // Two thousand strokes may take a second with a full pack: dropped as soon as they are no longer wanted.
  let sampling = new AbortController()
  const sampleSpread = kept(
    () => ask(client.POST('/api/spread', { body: body(), signal: sampling.signal })),
    (value) => {
      spread.value = value
      isSampling.value = false
    },
  )
  function readSpread() {
    sampling.abort()
    sampling = new AbortController()
    isSampling.value = spreadOpen.value
    if (spreadOpen.value) void sampleSpread()
    else spread.value = null
  }
  const readFan = kept(
    () => (workspace.stroke.pot && fanKind.value ? ask(client.POST('/api/fan', { body: { content: copy(workspace.content), kind: fanKind.value } })) : Promise.resolve([])),
    (lines) => (fan.value = lines),
  )

  // After the shot itself has been answered, so that the path under the finger always comes first.
  watch([() => workspace.shot, skill, listOpen], () => listOpen.value && void readOn())
  watch([() => workspace.shot, skill, spreadOpen], readSpread)
  watch([() => workspace.shot, fanKind], () => (fanKind.value ? void readFan() : (fan.value = [])))

  function choose(option: PotOption) {
    workspace.selected = option.cut.ball
    workspace.setStroke({ pot: { ball: option.cut.ball, pocket: option.cut.pocket, part: 0 }, free: false, ...(option.pace > workspace.stroke.pace ? { pace: option.pace } : {}) })
    workspace.commit()
    pointed.value = null
  }

  return { skill, listOpen, fanKind, spreadOpen, options, fan, spread, isSampling, pointed, choose }
})
