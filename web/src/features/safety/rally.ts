import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Content, Schemas } from '../../api/client'
import { copy } from '../../domain/strokes'
import { useAttempt } from '../../lib/useAttempt'
import { useDraft } from '../../position/draft'
import { usePlayOn, type Missed } from '../../position/playOn'
import { useShot } from '../../position/shot'

/** A stroke of a rally: the table it was played from, with the stroke, and what came of it. */
export type RallyStroke = {
  before: Content
  /** Who played it, 0 or 1, as the frame has it. */
  player: number
  missed: Missed | null
  points: number
  penalty: number
  potted: string[]
}

/** The exchange so far: stroke by stroke, by both players in turn. */
export const useRally = defineStore('rally', () => {
  const position = useDraft()
  const shot = useShot()
  const { attempt } = useAttempt()
  const playStroke = usePlayOn()
  const isPlaying = ref(false)

  const kept = useSessionStorage<{ opened: string; strokes: RallyStroke[] }>('deep-baize-rally', { opened: '', strokes: [] })
  const opened = computed(() => position.origin?.id ?? '')
  // A rally belongs to the position that it was begun from.
  const strokes = computed(() => (kept.value.opened === opened.value ? kept.value.strokes : []))
  const keep = (list: RallyStroke[]) => (kept.value = { opened: opened.value, strokes: list })

  /** Who is at the table now. */
  const turn = computed(() => position.content.frame?.turn ?? 0)
  /** Whose question the rally was: the one who played its first stroke. */
  const asker = computed(() => strokes.value[0]?.player ?? turn.value)
  /** The other player is at the table: what is advised is for them. */
  const isTheirTurn = computed(() => strokes.value.length > 0 && turn.value !== asker.value)

  /** Plays the stroke that is set up on: as it is, potted, or missed on one side. */
  async function playOn(how: 'as played' | 'potted' | Missed) {
    if (isPlaying.value) return
    isPlaying.value = true
    const missed = how === 'thick' || how === 'thin' ? how : null
    const before = copy<Content>(position.content)
    const stroke = before.stroke
    if (how === 'as played' && stroke.pot && !stroke.free) stroke.aim = shot.aim
    if (how !== 'as played') stroke.free = false
    const player = turn.value
    try {
      await attempt(async () => {
        const earlier = strokes.value
        const result: Schemas['PlayOnResult'] = await playStroke(before, missed)
        const { points, penalty, potted } = result
        keep([...earlier, { before, player, missed, points, penalty, potted }])
      }, 'Could not play it')
    } finally {
      isPlaying.value = false
    }
  }

  /** Back to the table before a stroke of the rally; that stroke is set up, and what followed it is gone. Undo brings the table back. */
  function backTo(which: number) {
    const { before } = strokes.value[which]
    keep(strokes.value.slice(0, which))
    position.replace(copy(before))
  }
  const clear = () => keep([])
  // Another position has been opened since the page was loaded: there the rally has not begun.
  watch(
    () => position.opened,
    (_, before) => before > 0 && clear(),
  )

  return { strokes, asker, isTheirTurn, isPlaying, playOn, backTo, clear }
})
