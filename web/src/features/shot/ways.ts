import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Schemas, Way } from '../../api/client'
import { usePlayer } from '../../position/player'
import { usePractise } from '../../position/practise'
import { useAttempt } from '../../lib/useAttempt'
import { useSearch } from '../../lib/useSearch'
import { useStandingOrder } from '../../lib/useStandingOrder'
import { plainPot, strokeOf } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useView } from '../../position/view'
import { useGoal } from '../../position/goal'

/** The server names each way by what the white does; the stroke as it is set up has a name of its own. */
const keyOf = (way: Way) => way.id || 'as set'

/** The hardest that a search goes by itself, on the standard scale: 5.1 m/s at the cue. */
export const usualHardest = 8

/** Put it there: the search for ways, and which of them are looked at. */
export const useWays = defineStore('ways', () => {
  const position = useDraft()
  const players = usePlayer()
  const practise = usePractise()
  const goal = useGoal()
  const view = useView()

  /** Search plain ball only. */
  const plainOnly = ref(false)
  /** Search the likeliest other pots too. */
  const anyPot = ref(false)
  /** Search follow and stun only. */
  const followOnly = ref(false)
  /** Pace that is not gone beyond. */
  const hardest = ref(usualHardest)
  /** Keys of the ways laid beside one another: A, then B. */
  const beside = ref<string[]>([])
  /** Of those, ways to the goal that was asked for before. */
  const heldOver = shallowRef<Way[]>([])
  const pointed = ref<string | null>(null)

  const isOpen = computed(() => view.step === 'shot' && view.shotView === 'there')

  const askedStroke = () => {
    const pot = position.stroke.pot && { ...position.stroke.pot, part: 0 }
    return { pot, elevation: position.stroke.elevation }
  }
  // What the answer depends on: not the tip and the pace that are set up now, so that trying a way keeps the list.
  const question = () => {
    const { balls, conditions } = position.content
    if (!goal.entry || !position.stroke.pot) return null
    return {
      content: { balls, conditions, stroke: askedStroke() },
      player: players.player,
      anyPot: anyPot.value,
      goal: goal.entry,
      freedom: {
        ...(plainOnly.value ? { mostSideTips: 0 } : {}),
        ...(followOnly.value ? { lowestTips: 0 } : {}),
        ...(hardest.value < usualHardest ? { hardest: hardest.value } : {}),
      },
    }
  }
  const { found, wait, status, since, isSearching, wasStopped, problem, stop, search } = useSearch<Schemas['WaysProgress']>('/api/ways', {
    question,
    body: () => ({ ...question()!, content: position.content }),
    isWanted: () => isOpen.value,
    rest: 120,
    hasFound: (told) => told.ways.length > 0 || told.share >= 1,
  })
  const share = computed(() => found.value?.share ?? 0)

  /** The stroke as it is set up, judged like the ways: told once, for the stroke that was set up then. */
  const asSet = shallowRef<Way | null>(null)
  watch(found, (told) => {
    if (told?.asSet) asSet.value = told.asSet
  })

  /** The ways, the best first; while one is laid beside or pointed at, nothing moves under the finger. */
  const { lines, better, isHeld, settle } = useStandingOrder<Way>(
    () => found.value?.ways ?? [],
    keyOf,
    (w) => w.stroke,
  )
  const ways = computed(() => (found.value && (found.value.ways.length || share.value >= 1) ? lines.value : null))
  watch(
    () => JSON.stringify(question()),
    () => {
      settle()
      asSet.value = null
      // What was laid beside one another stays, as it was judged, while it is a way to the same pot; the goal may change.
      heldOver.value = [a.value, b.value].filter((w): w is Way => !!w && w.stroke.pot?.ball === position.stroke.pot?.ball)
      beside.value = heldOver.value.map(keyOf)
    },
    { flush: 'sync' },
  )
  const all = computed(() => [...(asSet.value ? [asSet.value] : []), ...(ways.value ?? [])])
  const byKey = (key: string | null) => all.value.find((w) => keyOf(w) === key) ?? null
  const laid = (i: number) => {
    const key = beside.value[i] ?? null
    return byKey(key) ?? heldOver.value.find((w) => keyOf(w) === key) ?? null
  }
  const a = computed(() => laid(0))
  const b = computed(() => laid(1))
  /** Whether what is laid beside one another was judged for another goal. */
  const isHeldOver = computed(() => [a.value, b.value].some((w) => !!w && heldOver.value.includes(w)))
  // Judged for a stroke that is no longer the one set up.
  watch(
    () =>
      JSON.stringify([position.stroke.side, position.stroke.height, position.stroke.pace, position.stroke.pot?.part, position.stroke.free]),
    () => (asSet.value = null),
  )

  /** Of the ball that is chosen, through which other or off which cushion it goes stays. */
  const sameBall = (pot: { ball: string }) => (pot.ball === position.stroke.pot?.ball ? position.stroke.pot : {})
  /** Sets the stroke up as in this way. */
  function use(way: Way) {
    const { side, height, pace, elevation, pot } = way.stroke
    position.look({
      side,
      height,
      pace,
      // A way keeps the elevation that is set; as the cue lies it lies for this one too.
      elevation: position.stroke.elevation === null ? null : (elevation ?? null),
      pot: { ...plainPot(pot!.ball, pot!.pocket), ...sameBall(pot!), part: pot?.part ?? 0 },
      free: false,
    })
  }

  const { attempt } = useAttempt()
  /** Makes a way a routine. */
  const practiseWay = (way: Way) =>
    attempt(async () => {
      const { side, height, pace, pot } = strokeOf(way.stroke)
      const stroke = {
        ...position.stroke,
        side,
        height,
        pace,
        pot: { ...plainPot(pot!.ball, pot!.pocket), ...sameBall(pot!), part: pot?.part ?? 0 },
        free: false,
      }
      await practise.askFor(position.draft.name, { ...position.content, stroke })
    }, 'Could not make it a routine')

  /** Lays a way beside the one chosen before, or takes it away again. */
  function lay(way: Way) {
    const key = keyOf(way)
    beside.value = beside.value.includes(key) ? beside.value.filter((k) => k !== key) : [...beside.value.slice(-1), key]
  }

  const isUsed = (way: Way) => {
    const s = position.stroke
    return (
      !s.free &&
      s.pot?.ball === way.stroke.pot?.ball &&
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
    wait,
    status,
    since,
    better,
    isHeld,
    settle,
    isSearching,
    wasStopped,
    problem,
    plainOnly,
    anyPot,
    followOnly,
    hardest,
    beside,
    pointed,
    isOpen,
    a,
    b,
    isHeldOver,
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
