import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { ask, client, type BallEntry, type Schemas, type Stroke, type TrialEntry } from '../../api/client'
import { diagnosisWords } from '../../domain/diagnosis'
import { copy, isSameStroke, strokeOf } from '../../domain/strokes'
import { shortStrokeWords } from '../../domain/words'
import { newId } from '../../lib/device'
import { useNotices } from '../../lib/notices'
import { useAnswer } from '../../lib/useAnswer'
import { lengthWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { usePlayback } from '../../position/playback'
import { usePlayer } from '../../position/player'
import { seen } from '../../position/seen'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'
import { outcomeWords } from '../../position/words'
import { changeWords, instrumentWords, verdictWords } from './trialWords'

type Point = { x: number; y: number }
export type Trial = TrialEntry

/** As many lines as still part on a plan; the oldest that was only played makes room. */
const most = 24
/** Points of a line closer to its chord than this are left out, m. */
const thin = 0.004
/** How well a place is seen that is dragged to or tapped, m. */
const seenDoubt = 0.02
/** Fewer attempts have nothing in common that could be told from chance; more than so many are not kept. */
const fewestInCommon = 3
const mostEarlier = 40
/** Balls that lie within this are where they were, m. */
const sameHere = 0.0005

const rounded = (p: Point) => ({ x: Math.round(p.x * 1000) / 1000, y: Math.round(p.y * 1000) / 1000 })

/** A line with fewer points (Douglas & Peucker 1973), for what is kept. */
export function thinned<T extends Point>(points: readonly T[], tolerance = thin): T[] {
  if (points.length < 3) return [...points]
  const [a, b] = [points[0], points[points.length - 1]]
  const length = Math.hypot(b.x - a.x, b.y - a.y)
  const off = (p: Point) =>
    length ? Math.abs((b.x - a.x) * (a.y - p.y) - (a.x - p.x) * (b.y - a.y)) / length : Math.hypot(p.x - a.x, p.y - a.y)
  let [farthest, far] = [0, tolerance]
  for (let i = 1; i < points.length - 1; i++) if (off(points[i]) > far) [farthest, far] = [i, off(points[i])]
  if (!farthest) return [a, b]
  return [...thinned(points.slice(0, farthest + 1), tolerance).slice(0, -1), ...thinned(points.slice(farthest), tolerance)]
}

/** A line of a table that has hardly changed is still worth seeing; one from before a ball was potted is not. m. */
const hardlyMoved = 0.15

export const isSameTable = (a: readonly BallEntry[] | null | undefined, b: readonly BallEntry[], within = sameHere) =>
  !a ||
  (a.length === b.length &&
    a.every((ball) => {
      const other = b.find((o) => o.id === ball.id)
      return !!other && Math.hypot(other.x - ball.x, other.y - ball.y) < within
    }))

/** Strokes that leave their line: played on the desk, kept by a press, or seen at the table. They stay with the position. */
export const useTrials = defineStore('trials', () => {
  const position = useDraft()
  const shot = useShot()
  const players = usePlayer()
  const playback = usePlayback()
  const view = useView()
  const notices = useNotices()

  const trials = computed(() => position.draft.trials)
  const stroke = (): Stroke => ({ ...copy(position.stroke), aim: shot.aim })
  const isOf = (t: Trial, stroke: Stroke) => isSameStroke(strokeOf(t.stroke), stroke) && isSameTable(t.balls, position.content.balls)
  /** The trial of the stroke that is set up, if it has left its line. */
  const mine = computed(() => trials.value.find((t) => isOf(t, stroke())) ?? null)
  /** Lines that are drawn: the one of the present stroke is drawn already, and strong. */
  const shown = computed(() =>
    trials.value.filter((t) => t.shown && t.id !== mine.value?.id && isSameTable(t.balls, position.content.balls, hardlyMoved)),
  )
  /** The one before: what a change is told against. */
  const before = computed(() =>
    [...trials.value].reverse().find((t) => t.id !== mine.value?.id && isSameTable(t.balls, position.content.balls)),
  )

  const change = useAnswer<Schemas['ChangeRequest'], Schemas['ChangeResult']>({
    question: () =>
      before.value && position.ball('white') ? { content: shot.settled, before: before.value.stroke, player: players.player } : null,
    ask: (body, signal) => ask(client.POST('/api/shot/change', { body, signal })),
    isWanted: () => view.step === 'shot' && !!shot.shot,
    rest: 220,
  })
  /** The trial of this stroke that was seen to stop somewhere else: what must have gone wrong, under the player's own errors. */
  const diagnosing = useAnswer<Schemas['LearnStrokeRequest'], Schemas['DiagnosisResult']>({
    question: () => {
      const strike = shot.shot?.strike
      if (!mine.value?.seenWhite || !strike || !position.ball('white')) return null
      const { stroke, balls, conditions } = shot.settled
      return { balls, strike, meant: stroke.pot ?? null, conditions, player: players.player, seen: entryOf(present.value!) }
    },
    ask: (body, signal) => ask(client.POST('/api/learn/stroke', { body, signal })),
    isWanted: () => view.step === 'shot' && !!shot.shot,
    rest: 220,
  })
  /** How the last attempt at this stroke was seen to end. */
  const present = computed<Schemas['SeenEnd'] | null>(() => {
    const t = mine.value
    return t?.seenWhite ? { white: t.seenWhite, ball: t.seenBall ?? null, missed: t.missed ?? null, hit: t.hit ?? null } : null
  })
  function entryOf({ white, ball, missed, hit }: Schemas['SeenEnd']): Schemas['SeenEntry'] {
    const finals: Schemas['SeenBallEntry'][] = [{ id: 'white', ...white, pocket: null }]
    const id = shot.settled.stroke.pot?.ball ?? met.value
    if (ball && id) finals.push({ id, ...ball, pocket: null })
    return { finals, doubt: seenDoubt, missed: missed ?? null, met: hit ?? null }
  }
  const attempts = computed(() => [...(mine.value?.earlier ?? []), ...(present.value ? [present.value] : [])])
  /** What all attempts at this stroke have in common. */
  const judging = useAnswer<Schemas['LearnShotRequest'], Schemas['ShotVerdictResult']>({
    question: () => {
      const strike = shot.shot?.strike
      if (attempts.value.length < fewestInCommon || !strike || !position.ball('white')) return null
      const { stroke, balls, conditions } = shot.settled
      return { balls, strike, meant: stroke.pot ?? null, conditions, player: players.player, seen: attempts.value.map(entryOf) }
    },
    ask: (body, signal) => ask(client.POST('/api/learn/shot', { body, signal })),
    isWanted: () => view.step === 'shot' && !!shot.shot,
    rest: 220,
  })
  const verdict = computed(() =>
    attempts.value.length >= fewestInCommon && judging.present.value ? verdictWords(judging.present.value) : '',
  )
  /** The ball that the white meets first. */
  const met = computed(() => {
    const first = shot.shot?.simulation.events.find((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white'))
    return first && (first.ball === 'white' ? first.other : first.ball)
  })
  const diagnosis = computed(() => (mine.value?.seenWhite ? diagnosing.present.value : undefined))
  const adjustment = computed(() => (diagnosis.value ? diagnosisWords(diagnosis.value) : ''))
  /** A pot as straight as this is a measure of the cueing, degrees. */
  const straight = 2
  const isStraight = computed(() => !!shot.settled.stroke.pot && Math.abs(shot.shot?.cut?.cutDegrees ?? 90) < straight)
  const measured = computed(() =>
    diagnosis.value && isStraight.value && diagnosis.value.explains > 0.2
      ? instrumentWords(diagnosis.value.error, position.reference!.ballRadius)
      : '',
  )
  /** The white's way as it must have been, with the likeliest error. */
  const asPlayed = computed(() =>
    diagnosis.value && diagnosis.value.explains > 0.2
      ? (diagnosis.value.causes[0]?.paths.find((p: Schemas['PathEntry']) => p.id === 'white')?.points ?? [])
      : [],
  )

  /** "half a tip lower: 310 mm shorter, comes off the top cushion 9° wider": the present stroke against the one before. */
  const changed = computed(() => (before.value && change.present.value ? changeWords(change.present.value) : ''))

  function lineNow() {
    const path = shot.shot?.simulation.paths.find((p: Schemas['PathEntry']) => p.id === 'white')?.points ?? []
    const met = shot.shot?.simulation.events.find((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white'))
    const split = met ? path.findIndex((p) => p.time >= met.time - 1e-9) : -1
    const first = thinned(split > 0 ? path.slice(0, split + 1) : path)
    const then = split > 0 ? thinned(path.slice(split)) : []
    return { line: [...first, ...then.slice(1)].map(rounded), met: split > 0 ? first.length - 1 : 0 }
  }

  /** Leaves the line of the stroke that is set up, once. */
  function leave(isKept: boolean): Trial | null {
    const answer = shot.shot
    if (!answer || shot.isStale || view.isCovered) return null
    if (mine.value) {
      if (isKept) update(mine.value.id, { id: mine.value.id.replace(/^p/, 'k'), shown: true })
      return mine.value
    }
    const { line, met } = lineNow()
    if (!line.length) return null
    const meant = stroke()
    const trial: Trial = {
      id: `${isKept ? 'k' : 'p'}${newId().slice(0, 8)}`,
      name: shortStrokeWords(meant),
      stroke: meant,
      line,
      met,
      outcome: outcomeWords(answer).slice(0, 300),
      change: changed.value.slice(0, 300),
      shown: true,
      seenWhite: null,
      seenBall: null,
      missed: null,
      hit: null,
      earlier: [],
      balls: position.content.balls.map((b) => ({ ...b, ...rounded(b) })),
    }
    let list = [...trials.value]
    if (list.length >= most) {
      const oldest = list.findIndex((t) => t.id.startsWith('p') && !t.seenWhite)
      list = list.filter((_, i) => i !== Math.max(0, oldest))
    }
    set([...list, trial])
    return trial
  }
  function set(list: Trial[]) {
    position.draft.trials = list
    position.commit()
  }
  const update = (id: string, to: Partial<Trial>) => set(trials.value.map((t) => (t.id === id ? { ...t, ...to } : t)))
  const toggle = (id: string) => update(id, { shown: !trials.value.find((t) => t.id === id)?.shown })
  const rename = (id: string, name: string) => update(id, { name: name.trim().slice(0, 80), id: id.replace(/^p/, 'k') })
  const remove = (id: string) => set(trials.value.filter((t) => t.id !== id))
  function clear() {
    set([])
    notices.show({ kind: 'info', text: 'The lines are cleared.', action: { label: 'Undo', run: () => position.undo() } })
  }
  /** Makes a trial the stroke again, with the balls as they lay. */
  function setUp(trial: Trial) {
    if (!isSameTable(trial.balls, position.content.balls))
      position.replace({ ...position.content, balls: copy(trial.balls!), stroke: strokeOf(trial.stroke) })
    else position.look(strokeOf(trial.stroke))
  }

  // A stroke that is played leaves its line.
  watch(
    () => playback.isPlaying,
    (isPlaying) => isPlaying && leave(false),
  )

  // ---- Where it really stopped ----
  /** The next touch says where this ball stopped. */
  const asks = ref<'white' | 'ball' | null>(null)
  /** A ring that is being dragged. */
  const dragged = ref<(Point & { what: 'white' | 'ball' }) | null>(null)
  watch(
    () => JSON.stringify([position.stroke, position.content.balls]),
    () => (asks.value = null),
  )
  function seenAt(what: 'white' | 'ball', at: Point) {
    const trial = leave(true)
    asks.value = null
    if (!trial) return
    const place = rounded(at)
    const id = trial.id.replace(/^p/, 'k')
    update(id, what === 'white' ? { seenWhite: place } : { seenBall: place })
    const now = trials.value.find((t) => t.id === id)!
    const end = trial.line[trial.line.length - 1]
    const off = what === 'white' ? Math.hypot(place.x - end.x, place.y - end.y) : 0
    let isCounted = false
    if (now.seenWhite)
      void seen.trigger({
        // Another attempt is another one to count.
        id: now.earlier?.length ? `${id}-${now.earlier.length}` : id,
        balls: copy(position.content.balls),
        stroke: stroke(),
        white: now.seenWhite,
        ball: now.seenBall ?? null,
        counted: () => (isCounted = true),
      })
    notices.show({
      kind: 'info',
      text:
        (what === 'white' ? `Kept: it stopped ${lengthWords(off)} from where this stroke ends.` : 'Kept: where the ball stopped.') +
        (isCounted ? ' Counted in the session that is open.' : ''),
      action: { label: 'Undo', run: () => position.undo() },
    })
  }

  /** What else was seen of the last attempt; said twice it is taken back. */
  function saw(what: Pick<Trial, 'missed'> | Pick<Trial, 'hit'>) {
    const t = mine.value
    if (!t) return
    const isSaid = Object.entries(what).every(([key, value]) => t[key as 'missed' | 'hit'] === value)
    update(t.id, isSaid ? { missed: null, hit: null } : what)
  }
  /** The stroke was played once more: how it ended before is kept beside. */
  function playedAgain() {
    const t = mine.value
    if (!t || !present.value) return
    update(t.id, {
      earlier: [...(t.earlier ?? []), present.value].slice(-mostEarlier),
      seenWhite: null,
      seenBall: null,
      missed: null,
      hit: null,
    })
    asks.value = 'white'
  }

  return {
    attempts,
    verdict,
    saw,
    playedAgain,
    trials,
    mine,
    shown,
    before,
    changed,
    adjustment,
    measured,
    isStraight,
    asPlayed,
    asks,
    dragged,
    leave,
    update,
    toggle,
    rename,
    remove,
    clear,
    setUp,
    seenAt,
  }
})
