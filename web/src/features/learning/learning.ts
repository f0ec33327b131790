import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { ask, askList, client, type Schemas } from '../../api/client'
import { usePlayer } from '../../position/player'
import { useClub } from '../../position/club'
import { followingTable } from '../../position/following'

type Knowledge = Schemas['TableKnowledge']
/** Days in which a routine has shown something lately. */
const lately = 28
type Point = { x: number; y: number }

/** What is learnt of the table and the player in hand. */
export const useLearning = defineStore('learning', () => {
  const players = usePlayer()
  const club = useClub()
  const knowledge = shallowRef<Knowledge | null>(null)
  const taken = shallowRef<Schemas['TakenResult'][]>([])
  const player = shallowRef<Schemas['AttemptsLearnt'] | null>(null)
  const gain = shallowRef<Schemas['GainResult'] | null>(null)
  const routines = shallowRef<Schemas['RoutineTally'][]>([])
  /** Which of the strokes that would tell most is to be played. */
  const chosen = ref(0)
  /** A late answer about another table is dropped. */
  let asked = 0

  async function load() {
    const mine = ++asked
    const told = await ask(client.POST('/api/learn/trials/learnt', { body: { player: players.player } }))
    if (mine !== asked) return
    knowledge.value = told
    chosen.value = 0
    await loadTaken()
  }
  async function loadTaken() {
    const { items } = await askList((range) => client.GET('/api/learn/taken', { params: { query: range } }), 10)
    taken.value = items
  }

  async function keep(stroke: Schemas['TeachingStrokeResult'], finals: Schemas['SeenBallEntry'][], doubt: number) {
    await ask(
      client.POST('/api/learn/trials', {
        body: { balls: stroke.balls, strike: stroke.strike, line: stroke.line, seen: { finals, doubt } },
      }),
    )
    await load()
  }
  const seenAt = (stroke: Schemas['TeachingStrokeResult'], white: Point, doubt: number) =>
    keep(stroke, [{ id: 'white', ...white, pocket: null }], doubt)
  /** The made-up table plays it. */
  async function playByStandIn(stroke: Schemas['TeachingStrokeResult']) {
    const seen = await ask(client.POST('/api/stand-in/stroke', { body: { balls: stroke.balls, strike: stroke.strike } }))
    await keep(stroke, seen.finals, seen.doubt)
    return seen
  }
  async function remove(trial: Schemas['KeptTrialResult']) {
    await ask(client.DELETE('/api/learn/trials/{id}', { params: { path: { id: trial.id }, query: { version: trial.version } } }))
    await load()
  }

  async function loadPlayer() {
    player.value = null
    player.value = await ask(client.POST('/api/learn/attempts'))
  }

  /** What each part of the error would bring, were it smaller; and what routines have shown in the last weeks. */
  async function loadGain() {
    gain.value = null
    const from = new Date(Date.now() - lately * 86_400_000).toISOString()
    const [found, shown] = await Promise.all([
      ask(client.POST('/api/learn/gain', { body: { player: players.player, conditions: club.conditions } })),
      ask(client.GET('/api/practice/statistics', { params: { query: { player: club.player?.id, from } } })),
    ])
    routines.value = shown.routines
    gain.value = found
  }

  /** Whether the table that is laid out has these figures too is said with it. */
  async function take(kind: Schemas['TakenKind'], name: string, figures: Record<string, number>) {
    const made = await ask(client.POST('/api/learn/taken', { body: { kind, name, figures } }))
    const isFollowed = await followingTable(() => club.load())
    await loadTaken()
    return { ...made, isFollowed }
  }
  async function undo(id: string) {
    await ask(client.POST('/api/learn/taken/{id}/undo', { params: { path: { id } } }))
    await followingTable(() => club.load())
    await loadTaken()
  }

  return {
    knowledge,
    taken,
    player,
    gain,
    routines,
    chosen,
    load,
    loadTaken,
    seenAt,
    playByStandIn,
    remove,
    loadPlayer,
    loadGain,
    take,
    undo,
  }
})
