import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { ask, client, type Content, type Schemas, type Stroke } from '../../api/client'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'
import { useAttempt } from '../../lib/useAttempt'
import { forgetAnswers } from '../../lib/keptAnswers'
import { useAnswer } from '../../lib/useAnswer'
import { useSearch } from '../../lib/useSearch'
import { useStandingOrder } from '../../lib/useStandingOrder'
import { useNotices } from '../../lib/notices'
import { advised, copy } from '../../domain/strokes'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { countWords, degreeWords, lengthWords } from '../../lib/formats'
import { useRally } from './rally'
import { alongWords, type Attack, type Escape, type Safety } from './words'

type Progress = Schemas['DecideProgress']
type Prospect = Schemas['ProspectResult']
/** A line of the list, by what it is played for; its key is the same for the same idea while the search goes on. */
export type Item = { key: string; prospect: Prospect } & (
  { kind: 'attack'; attack: Attack } | { kind: 'safety'; safety: Safety } | { kind: 'escape'; escape: Escape }
)

const strokeIn = (item: Item) =>
  item.kind === 'attack' ? item.attack.choice.stroke : item.kind === 'safety' ? item.safety.stroke : item.escape.stroke

function itemOf(prospect: Prospect): Item {
  const { id: key, attack, safety, escape } = prospect
  if (attack) return { key, prospect, kind: 'attack', attack }
  return safety ? { key, prospect, kind: 'safety', safety } : { key, prospect, kind: 'escape', escape: escape! }
}

/** Attack or defend: pots, safeties and escapes on one scale, and what the stroke that is set up leaves. */
export const useDecide = defineStore('decide', () => {
  const shot = useShot()
  const position = useDraft()
  const players = usePlayer()
  const view_ = useView()
  const notices = useNotices()
  const { attempt } = useAttempt()

  const rival = useLocalStorage('deep-baize-rival', 'county')
  const leaveOpen = ref(false)

  const isOpen = computed(() => view_.step === 'safety')

  const rally = useRally()
  /** How well the user plays, as the other player of whoever is at the table. */
  const ownSkill = computed(() => {
    const named = position.reference!.skills.map((s) => s.name)
    // Figures of one's own have no name: as the other player one is then taken to be usual.
    return !players.player.own && named.includes(players.player.skill) ? players.player.skill : 'county'
  })
  /** Who the advice is for, and against whom: in a rally the other player has a turn, too. */
  const sides = computed(() =>
    rally.isTheirTurn
      ? { player: { ...players.player, skill: rival.value, own: null }, rival: ownSkill.value }
      : { player: players.player, rival: rival.value },
  )

  // The answer does not depend on the stroke that is set up, so that trying one keeps the list.
  const { found, wait, status, since, isSearching, wasStopped, problem, stop, search } = useSearch<Progress>('/api/decide', {
    question: () => (position.content.balls.length ? { content: position.tableAsked, ...sides.value } : null),
    body: () => ({ content: position.content, ...sides.value }),
    isWanted: () => isOpen.value,
    rest: 250,
    hasFound: (told) => told.prospects.length > 0,
  })

  /** One list, the best first, as it was told; while it is held nothing moves in it. */
  const {
    lines: items,
    better,
    isHeld,
    chosen,
    choose: hold,
    settle,
  } = useStandingOrder<Item>(
    () => (found.value?.prospects ?? []).map(itemOf),
    (item) => item.key,
    (item) => strokeIn(item),
  )
  const shown = computed(() => (isOpen.value ? (items.value.find((i) => i.key === chosen.value) ?? null) : null))
  // Another table: nothing of the old list is chosen.
  watch(() => JSON.stringify(position.tableAsked), settle)

  const strokeOfItem = (item: Item): Stroke => advised(strokeIn(item), players.player.naturalElevation)

  /** Sets the desk up with it, and tells more of it. */
  function choose(item: Item) {
    hold(item.key)
    learnt.value = null
    // In hand, each line is played from a place of its own in the D.
    position.look(strokeOfItem(item), item.kind === 'safety' ? found.value?.safetyWhite : found.value?.white)
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
      const turn = next.aimDegrees - shot.aim
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
    }, 'Could not correct the aim')
  }

  /** Keeps the correction as this table's: the next escape off the same cushions says so. */
  async function keepLearnt() {
    const correction = learnt.value
    if (!correction) return
    await attempt(async () => {
      const kept = await ask(client.POST('/api/escape/corrections', { body: correction }))
      learnt.value = null
      forgetAnswers('/api/decide')
      notices.show({
        kind: 'info',
        text: `Kept for this table: ${lengthWords(Math.abs(kept.along))}, from ${countWords(kept.trials, 'trial')}.`,
      })
    }, 'Could not keep the correction')
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
      forgetAnswers('/api/decide')
      void search()
    }, 'Could not delete the correction')
  }

  const { present: view } = useAnswer({
    question: () => (isOpen.value && leaveOpen.value ? { content: shot.settled, ...sides.value } : null),
    ask: (body, signal) => ask(client.POST('/api/leave', { body, signal })),
    isWanted: () => !!shot.shot,
  })

  // ---- The black-ball game ---------------------------------------------------------------------------------------

  /** Only white and black are left: the black again, to win or lose. */
  const isBlackBall = computed(() => position.content.balls.length === 2 && !!position.ball('black'))
  const comparison = useSearch<Schemas['BlackBallEvent']>('/api/black-ball', {
    question: () => (isBlackBall.value ? { conditions: position.content.conditions, player: players.player, rival: rival.value } : null),
    isWanted: () => isOpen.value,
    rest: 0,
    isAsked: true,
    hasFound: (told) => told.openings.length > 0,
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
    openings: comparison.found,
    comparisonStatus: comparison.status,
    comparisonWait: comparison.wait,
    isBlackBall,
    isComparing: comparison.isSearching,
    compare: comparison.search,
    stopComparing: comparison.stop,
    comparisonProblem: comparison.problem,
    setOpening,
    rival,
    found,
    wait,
    status,
    since,
    items,
    better,
    isHeld,
    settle,
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
