import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Content, type Schemas, type Stroke } from '../../api/client'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'
import { useAttempt } from '../../lib/useAttempt'
import { useLatest } from '../../lib/useLatest'
import { useSearch } from '../../lib/useSearch'
import { useNotices } from '../../lib/notices'
import { advised, copy } from '../../domain/strokes'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { countWords, degreeWords, lengthWords } from '../../lib/formats'
import { alongWords, type Attack, type Escape, type Safety } from './words'

type Progress = Schemas['DecideProgress']
type Prospect = Schemas['ProspectResult']
/** A line of the list, by what it is played for; its key is the same for the same idea while the search goes on. */
export type Item = { key: string; prospect: Prospect } & (
  { kind: 'attack'; attack: Attack } | { kind: 'safety'; safety: Safety } | { kind: 'escape'; escape: Escape }
)

function itemOf(prospect: Prospect): Item {
  const { id: key, attack, safety, escape } = prospect
  if (attack) return { key, prospect, kind: 'attack', attack }
  return safety ? { key, prospect, kind: 'safety', safety } : { key, prospect, kind: 'escape', escape: escape! }
}

/** Attack or defend: pots, safeties and escapes on one scale, and what the stroke that is set up leaves. */
export const useDecide = defineStore('decide', () => {
  const answer = useAnswer()
  const position = useDraft()
  const players = usePlayer()
  const view_ = useView()
  const notices = useNotices()
  const { attempt } = useAttempt()

  const rival = useLocalStorage('deep-baize-rival', 'county')
  const found = shallowRef<Progress | null>(null)
  const chosen = ref('')
  const leaveOpen = ref(false)
  const view = shallowRef<Schemas['RivalViewResult'] | null>(null)

  const isOpen = computed(() => view_.step === 'safety')
  /** One list, the best first, as it was told. */
  const items = computed<Item[]>(() => (found.value?.prospects ?? []).map(itemOf))
  const shown = computed(() => (isOpen.value ? (items.value.find((i) => i.key === chosen.value) ?? null) : null))

  const { isSearching, wasStopped, problem, stop, search, follows } = useSearch<Progress>(
    '/api/decide',
    'The search',
    () => {
      if (!isOpen.value || !position.content.balls.length) return null
      chosen.value = ''
      found.value = null
      return { content: copy(position.content), player: copy(players.player), rival: rival.value }
    },
    (progress) => (found.value = progress),
  )

  // What the answer depends on: not the stroke that is set up, so that trying one keeps the list.
  const question = computed(() =>
    JSON.stringify([isOpen.value, position.ballsAsked, position.content.conditions, position.content.frame, players.player, rival.value]),
  )
  follows(() => question.value, 250)

  const strokeOfItem = (item: Item): Stroke =>
    advised(
      item.kind === 'attack' ? item.attack.choice.stroke : item.kind === 'safety' ? item.safety.stroke : item.escape.stroke,
      players.player.naturalElevation,
    )

  /** Sets the desk up with it, and tells more of it. */
  function choose(item: Item) {
    chosen.value = item.key
    learnt.value = null
    // In hand, each line is played from a place of its own in the D.
    const place = item.kind === 'safety' ? found.value?.safetyWhite : found.value?.white
    if (place) position.placeWhite(place)
    position.setStroke(strokeOfItem(item))
    position.commit()
  }

  /** What an address names, once it has been found. */
  let wanted = ''
  function chooseOnce(key: string) {
    if (key !== chosen.value) wanted = key
  }
  watch(items, (list) => {
    const item = wanted && found.value?.share === 1 ? list.find((i) => i.key === wanted) : null
    if (!item) return
    wanted = ''
    choose(item)
  })

  /** Aims the chosen pot at the part of the pocket whose miss is the safer one. */
  function err(attack: Attack) {
    if (!position.stroke.pot) return
    position.setStroke({ pot: { ...position.stroke.pot, part: attack.part }, free: false })
    position.commit()
  }

  /** The last correction, until it is kept or something else is chosen. */
  const learnt = ref<{ route: string; along: number } | null>(null)

  /** It was tried, and passed so far to the left or met the cushion so far along: the next aim. */
  async function correct(escape: Escape, what: 'passed' | 'cushion', by: number) {
    await attempt(async () => {
      const next = await ask(
        client.POST('/api/escape/correct', {
          body: { content: copy<Content>(position.content), ball: escape.ball, ...(what === 'passed' ? { passed: by } : { along: by }) },
        }),
      )
      const turn = next.aimDegrees - answer.aim
      position.aimFreely(next.aimDegrees)
      position.commit()
      // A place on the cushion that was missed tells of the stroke, not of the table.
      learnt.value = what === 'passed' && next.along ? { route: escape.route, along: next.along } : null
      const along = next.along ? `: on the cushion ${alongWords(escape, next.along)}` : ''
      notices.show({
        kind: 'info',
        text: `Next time aim ${degreeWords(Math.abs(turn), 2)} farther to the ${turn > 0 ? 'left' : 'right'}${along}.`,
        action: { label: 'Undo', run: () => position.undo() },
      })
    }, 'Not corrected')
  }

  /** Keeps the correction as this table's: the next escape off the same cushions says so. */
  async function keepLearnt() {
    const correction = learnt.value
    if (!correction) return
    await attempt(async () => {
      const kept = await ask(client.POST('/api/escape/corrections', { body: correction }))
      learnt.value = null
      notices.show({
        kind: 'info',
        text: `Kept as this table’s: ${lengthWords(Math.abs(kept.along))}, from ${countWords(kept.trials, 'trial')}.`,
      })
    }, 'The correction is not kept')
  }

  /** Aims an escape with what trials on this table have taught. */
  function aimKept(escape: Escape) {
    if (!escape.kept) return
    position.aimFreely(escape.kept.aimDegrees)
    position.commit()
  }

  async function forget(escape: Escape) {
    const { route, kept } = escape
    if (!kept) return
    await attempt(async () => {
      await ask(client.DELETE('/api/escape/corrections/{route}', { params: { path: { route }, query: { version: kept.version } } }))
      void search()
    }, 'Not forgotten')
  }

  const look = useLatest(async () => {
    try {
      view.value = await ask(
        client.POST('/api/leave', {
          body: { content: copy<Content>(position.content), player: copy(players.player), rival: rival.value },
        }),
      )
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      view.value = null
    }
  })
  // After the shot itself has been answered.
  watch([() => answer.shot, leaveOpen, isOpen, rival], () => {
    if (isOpen.value && leaveOpen.value) void look()
    else view.value = null
  })

  // ---- The black-ball game ---------------------------------------------------------------------------------------

  const openings = shallowRef<Schemas['BlackBallEvent'] | null>(null)
  /** Only white and black are left: the black again, to win or lose. */
  const isBlackBall = computed(() => position.content.balls.length === 2 && !!position.ball('black'))
  const comparison = useSearch<Schemas['BlackBallEvent']>(
    '/api/black-ball',
    'The comparison',
    () => {
      openings.value = null
      return { conditions: copy(position.content.conditions), player: copy(players.player), rival: rival.value }
    },
    (told) => (openings.value = told),
  )
  watch([isOpen, isBlackBall, rival, () => players.player, () => position.content.conditions], () => {
    comparison.drop()
    openings.value = null
  })

  /** Puts the black on its spot and the white where this opening wants it, with its stroke. */
  async function setOpening(opening: Schemas['OpeningResult']) {
    const spot = position.reference!.spots.find((s) => s.ball === 'black')!
    const balls = position.content.balls
    Object.assign(
      balls.find((b) => b.id === 'black')!,
      { x: spot.x, y: spot.y },
    )
    Object.assign(
      balls.find((b) => b.id === 'white')!,
      { x: opening.whiteX, y: opening.whiteY },
    )
    position.setStroke({ ...advised(opening.stroke, players.player.naturalElevation), pot: null })
    position.commit()
  }

  return {
    openings,
    isBlackBall,
    isComparing: comparison.isSearching,
    compare: comparison.search,
    stopComparing: comparison.stop,
    comparisonProblem: comparison.problem,
    setOpening,
    rival,
    found,
    items,
    shown,
    chosen,
    isOpen,
    isSearching,
    wasStopped,
    problem,
    leaveOpen,
    view,
    learnt,
    search,
    stop,
    choose,
    chooseOnce,
    err,
    correct,
    keepLearnt,
    aimKept,
    forget,
  }
})
