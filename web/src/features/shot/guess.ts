import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { plainStroke, strokeOf } from '../../domain/strokes'
import { useAttempt } from '../../lib/useAttempt'
import { useDraft } from '../../position/draft'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'

type Point = { x: number; y: number }
export type GuessKind = Schemas['GuessKind']
/** In the order in which they are marked. */
const routes = ['stun', 'follow', 'screw'] as const

/** Guess first: the answer is covered until the place is marked; then it is drawn with the error. It trains the eye. */
export const useGuess = defineStore('guess', () => {
  const position = useDraft()
  const shot = useShot()
  const view = useView()
  const { attempt } = useAttempt()

  const kind = ref<GuessKind>('stop')
  const placed = ref<Point[]>([])
  /** The ball that the white is thought to meet; "none" for none, empty while nothing is said. */
  const ball = ref('')
  const answers = ref<Point[] | null>(null)
  const rightBall = ref<string | null>(null)
  const summary = ref<Schemas['GuessSummary'] | null>(null)
  /** Of the layout that was drawn last, if its guess is still to be made. */
  const seed = ref<number | null>(null)

  const isOpen = computed(() => view.step === 'shot' && view.shotView === 'guess')
  const isShown = computed(() => answers.value !== null || rightBall.value !== null)
  const isCovered = computed(() => isOpen.value && !isShown.value)
  watch(isCovered, (is) => (view.isCovered = is), { immediate: true })
  const wanted = computed(() => (kind.value === 'routes' ? routes.length : kind.value === 'stop' ? 1 : 0))
  const next = computed(() => (kind.value === 'routes' ? (routes[placed.value.length] ?? '') : ''))
  const canShow = computed(
    () => !!shot.shot && !shot.isStale && (kind.value === 'ball' ? ball.value !== '' : placed.value.length === wanted.value),
  )

  function begin() {
    placed.value = []
    ball.value = ''
    answers.value = rightBall.value = null
  }
  // Another question is guessed anew.
  watch([kind, () => JSON.stringify([position.stroke, position.content.balls])], begin)

  /** Takes a mark under the hand, or puts the next one there. */
  function mark(at: Point, reach: number): ((to: Point) => void) | null {
    if (!isCovered.value || !wanted.value) return null
    let i = placed.value.findIndex((p) => Math.hypot(p.x - at.x, p.y - at.y) < reach)
    if (i < 0) {
      if (placed.value.length >= wanted.value) return null
      i = placed.value.length
      placed.value = [...placed.value, at]
    }
    return (to) => (placed.value = placed.value.map((p, k) => (k === i ? { x: to.x, y: to.y } : p)))
  }

  const stops = async (): Promise<(Point | null)[]> => {
    if (kind.value !== 'routes') {
      const white = shot.shot?.simulation.finals.find((f) => f.id === 'white')
      return [white && !white.pocket ? { x: white.x, y: white.y } : null]
    }
    const fan = await ask(client.POST('/api/fan', { body: { content: shot.settled, kind: 'routes' } }))
    return routes.map((r) => fan.find((f) => f.key === r)?.points.at(-1) ?? null)
  }
  /** Which ball the white meets after the one that it strikes first; "none" if it meets none. */
  function meets(): string {
    const events = shot.shot?.simulation.events ?? []
    const met = events
      .filter((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white'))
      .map((e) => (e.ball === 'white' ? e.other! : e.ball))
    return met.find((id) => id !== met[0]) ?? 'none'
  }

  const error = computed(() => {
    if (!answers.value?.length) return null
    return answers.value.reduce((sum, a, i) => sum + Math.hypot(a.x - placed.value[i].x, a.y - placed.value[i].y), 0) / answers.value.length
  })

  /** Uncovers the answer, and keeps how far off the guess was. */
  const show = () =>
    attempt(async () => {
      if (!canShow.value) return
      if (kind.value === 'ball') rightBall.value = meets()
      else {
        const found = await stops()
        // Where a route goes in, there is nothing to be right about.
        const pairs = found.map((a, i) => ({ a, at: placed.value[i] })).filter((p): p is { a: Point; at: Point } => !!p.a)
        placed.value = pairs.map((p) => p.at)
        answers.value = pairs.map((p) => p.a)
      }
      const body = {
        kind: kind.value,
        error: error.value,
        isRight: kind.value === 'ball' ? rightBall.value === ball.value : null,
        seed: seed.value,
      }
      seed.value = null
      if (kind.value !== 'ball' && error.value === null) return
      await ask(client.POST('/api/guesses', { body }))
      await look()
    }, 'Could not keep the guess')

  const look = () => attempt(async () => void (summary.value = await ask(client.GET('/api/guesses'))), 'Could not load your guesses')
  watch(isOpen, (is) => is && !summary.value && void look(), { immediate: true })

  /** Another layout with a stroke, drawn by a seed, as a position of its own. */
  const another = () =>
    attempt(async () => {
      const number = 1 + Math.floor(Math.random() * 1_000_000)
      const layout = await ask(client.GET('/api/guesses/layout', { params: { query: { seed: number } } }))
      position.begin(`Guess ${number}`, {
        balls: layout.balls,
        stroke: { ...plainStroke, ...strokeOf(layout.stroke) },
        conditions: { ...position.content.conditions },
      })
      view.go('shot', 'guess')
      seed.value = number
      begin()
    }, 'No layout was drawn')

  const marks = computed(() =>
    isOpen.value
      ? placed.value.map((at, i) => ({
          key: String(i),
          at,
          answer: answers.value?.[i] ?? null,
          name: kind.value === 'routes' ? `guess: ${routes[i]}` : 'guess',
        }))
      : [],
  )

  return { kind, placed, ball, rightBall, isShown, isCovered, wanted, next, canShow, error, summary, marks, mark, show, begin, another }
})
