import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { advised } from '../../domain/strokes'
import { problemWords } from '../../lib/problemWords'
import { useAttempt } from '../../lib/useAttempt'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'
import { useDecide } from './decide'
import type { Escape } from './words'

/** Ways round cushions to one ball, whether or not another can be hit straight; and from where else the stroke that is set up works. */
export const useEscapes = defineStore('escapes', () => {
  const shot = useShot()
  const position = useDraft()
  const players = usePlayer()
  const view = useView()
  const decide = useDecide()
  const isOpen = computed(() => view.step === 'safety')

  /** The ball that is wanted; '' while nobody asks. */
  const ball = ref('')
  const familyOpen = ref(false)
  // Another table is another question.
  watch(
    () => JSON.stringify(position.tableAsked),
    () => {
      ball.value = ''
      familyOpen.value = false
    },
  )

  const ways = useAnswer<Schemas['EscapesRequest'], Escape[]>({
    question: () => {
      if (!isOpen.value || !ball.value) return null
      const { balls, conditions, frame } = shot.settled
      return { content: { balls, conditions, frame, stroke: {} }, player: players.player, rival: decide.rival, ball: ball.value }
    },
    ask: (asked, signal) => ask(client.POST('/api/escapes', { body: asked, signal })),
    rest: 120,
    keepAs: 'escapes',
  })
  const family = useAnswer<Schemas['FamilyRequest'], Schemas['FamilyResult']>({
    question: () => (isOpen.value && familyOpen.value ? { content: shot.settled, player: players.player } : null),
    ask: (asked, signal) => ask(client.POST('/api/escapes/family', { body: asked, signal })),
    isWanted: () => !!shot.shot,
    rest: 180,
    keepAs: 'family',
  })

  // ---- Families that are kept ----
  const { attempt } = useAttempt()
  /** Kept families that work from where the white lies now. */
  const here = useAnswer<Schemas['FamilyRequest'], Schemas['FamilyHereResult'][]>({
    question: () => {
      const { balls, conditions, frame } = shot.settled
      return isOpen.value && position.ball('white') ? { content: { balls, conditions, frame, stroke: {} }, player: players.player } : null
    },
    ask: (asked, signal) => ask(client.POST('/api/escapes/families/here', { body: asked, signal })),
    rest: 400,
  })
  const all = shallowRef<Schemas['KeptFamilyResult'][]>([])
  const look = () =>
    attempt(async () => {
      all.value = await ask(client.GET('/api/escapes/families', { params: { query: { take: 200 } } }))
    }, 'Could not load the families')
  const keep = (name: string) =>
    attempt(async () => {
      await ask(client.POST('/api/escapes/families', { body: { name, content: shot.settled, player: players.player } }))
      await look()
    }, 'Could not keep the family')
  const forget = ({ id, version }: Schemas['KeptFamilyResult']) =>
    attempt(async () => {
      await ask(client.DELETE('/api/escapes/families/{id}', { params: { path: { id }, query: { version } } }))
      await look()
    }, 'Could not delete the family')

  const useFamily = (f: Schemas['FamilyHereResult']) => {
    position.look(advised(f.stroke, players.player.naturalElevation))
    familyOpen.value = true
  }
  const use = (escape: Escape) => position.look(advised(escape.stroke, players.player.naturalElevation))
  const refusalOf = (of: { problem: typeof ways.problem }) => computed(() => (of.problem.value ? problemWords(of.problem.value) : ''))
  return {
    ball,
    familyOpen,
    ways: computed(() => (ball.value && !ways.problem.value ? ways.answer.value : null)),
    areWaysStale: ways.isStale,
    waysRefusal: refusalOf(ways),
    family: computed(() => (familyOpen.value && isOpen.value && !family.problem.value ? family.answer.value : null)),
    isFamilyStale: family.isStale,
    familyRefusal: refusalOf(family),
    here: computed(() => (isOpen.value && !here.problem.value ? (here.present.value ?? []) : [])),
    all,
    look,
    keep,
    forget,
    useFamily,
    use,
  }
})
