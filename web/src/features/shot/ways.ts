import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Schemas, Way } from '../../api/client'
import { usePlayer } from '../../position/player'
import { usePractise } from '../../position/practise'
import { useAttempt } from '../../lib/useAttempt'
import { useSearch } from '../../lib/useSearch'
import { copy, strokeOf } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useView } from '../../position/view'
import { useGoal } from './goal'

/** Put it there: the search for ways, and which of them are looked at. */
export const useWays = defineStore('ways', () => {
  const position = useDraft()
  const players = usePlayer()
  const practise = usePractise()
  const goal = useGoal()
  const view = useView()

  const ways = shallowRef<Way[] | null>(null)
  const asSet = shallowRef<Way | null>(null)
  const share = ref(0)
  const strokes = ref(0)
  const wait = shallowRef<Schemas['WaysProgress']['wait']>(null)
  /** Search plain ball only. */
  const plainOnly = ref(false)
  /** Keys of the ways laid beside one another: A, then B. */
  const beside = ref<string[]>([])
  const pointed = ref<string | null>(null)

  const isOpen = computed(() => view.step === 'shot' && view.shotView === 'there')
  const keyOf = (way: Way) => [way.stroke.height, way.stroke.side, way.stroke.pace, way.stroke.pot?.part].join('/')
  const all = computed(() => [...(asSet.value ? [asSet.value] : []), ...(ways.value ?? [])])
  const byKey = (key: string | null) => all.value.find((w) => keyOf(w) === key) ?? null
  const a = computed(() => byKey(beside.value[0] ?? null))
  const b = computed(() => byKey(beside.value[1] ?? null))

  const { isSearching, wasStopped, problem, stop, search, follows } = useSearch<Schemas['WaysProgress']>(
    '/api/ways',
    'The search',
    () => {
      const entry = goal.entry
      share.value = strokes.value = 0
      if (isOpen.value && entry && position.stroke.pot)
        return {
          content: copy(position.content),
          player: copy(players.player),
          goal: copy(entry),
          freedom: plainOnly.value ? { mostSideTips: 0 } : {},
        }
      ways.value = asSet.value = null
      return null
    },
    (progress) => {
      share.value = progress.share
      strokes.value = progress.strokes
      wait.value = progress.wait
      // The first event tells of the stroke as it is set up; what was found before stays until there is something newer.
      if (progress.share === 0) asSet.value = progress.asSet
      else ways.value = progress.ways
    },
  )

  // What the answer depends on: not the tip and the pace that are set up now, so that trying a way keeps the list.
  const question = computed(() => {
    const { balls, conditions, stroke } = position.content
    const pot = stroke.pot && { ...stroke.pot, part: 0 }
    return JSON.stringify([isOpen.value, balls, conditions, pot, stroke.elevation, goal.entry, players.player, plainOnly.value])
  })
  follows(() => question.value, 120)
  // Judged for a stroke that is no longer the one set up.
  watch(
    () =>
      JSON.stringify([position.stroke.side, position.stroke.height, position.stroke.pace, position.stroke.pot?.part, position.stroke.free]),
    () => (asSet.value = null),
  )

  /** Sets the stroke up as in this way. */
  function use(way: Way) {
    const { side, height, pace, elevation, pot } = way.stroke
    position.setStroke({
      side,
      height,
      pace,
      // A way keeps the elevation that is set; as the cue lies it lies for this one too.
      elevation: position.stroke.elevation === null ? null : (elevation ?? null),
      pot: { ...position.stroke.pot!, part: pot?.part ?? 0 },
      free: false,
    })
    position.commit()
  }

  const { attempt } = useAttempt()
  /** Makes a way a routine. */
  const practiseWay = (way: Way) =>
    attempt(async () => {
      const { side, height, pace, pot } = strokeOf(way.stroke)
      const stroke = { ...position.stroke, side, height, pace, pot: { ...position.stroke.pot!, part: pot?.part ?? 0 }, free: false }
      await practise.askFor(position.draft.name, { ...position.content, stroke })
    }, 'Not made a routine')

  /** Lays a way beside the one chosen before, or takes it away again. */
  function lay(way: Way) {
    const key = keyOf(way)
    beside.value = beside.value.includes(key) ? beside.value.filter((k) => k !== key) : [...beside.value.slice(-1), key]
  }

  const isUsed = (way: Way) => {
    const s = position.stroke
    return (
      !s.free &&
      s.height === way.stroke.height &&
      s.side === way.stroke.side &&
      s.pace === way.stroke.pace &&
      (s.pot?.part ?? 0) === (way.stroke.pot?.part ?? 0)
    )
  }

  return {
    ways,
    asSet,
    share,
    strokes,
    wait,
    isSearching,
    wasStopped,
    problem,
    plainOnly,
    beside,
    pointed,
    isOpen,
    a,
    b,
    keyOf,
    byKey,
    search,
    stop,
    use,
    practiseWay,
    lay,
    isUsed,
  }
})
