import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { isSameStroke, strokeOf } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useView } from '../../position/view'
import type { Naming } from '../../table/labels'
import { useCompare } from './compare'
import { useGuess } from './guess'
import { useTrials } from './trials'

type Point = { x: number; y: number }
/** Each line its own colour and its own dash, so that neither is needed to tell them apart. */
const colours = ['#9fd8d0', '#f0c987', '#d7b8e8', '#a9cdf5', '#f4b3a0', '#c5dd9a']
const dashes = [
  [26, 10],
  [6, 9],
  [34, 8, 6, 8],
  [14, 7],
  [44, 14],
  [3, 7, 14, 7],
]
/** How the line of this number is drawn. */
export const styleOf = (number: number) => ({ colour: colours[number % colours.length], dash: dashes[number % dashes.length] })

/** What is drawn of strokes that have left their line, of those that are compared, and of guesses. */
export const useTrialsDrawing = createSharedComposable(() => {
  const trials = useTrials()
  const compare = useCompare()
  const guess = useGuess()
  const view = useView()
  const position = useDraft()

  const isShot = computed(() => view.step === 'shot' && !view.ahead)
  const lines = computed(() => {
    if (!isShot.value || guess.isCovered) return []
    if (compare.isOpen)
      return compare.columns
        .filter(({ column }) => column.path.length > 1 && !isSameStroke(strokeOf(column.stroke), { ...position.stroke }))
        .map(({ column, name }, i) => ({
          key: column.id,
          name,
          points: column.path,
          end: column.path[column.path.length - 1],
          ...styleOf(i),
        }))
    return trials.trials
      .map((t, i) => ({ t, i }))
      .filter(({ t }) => trials.shown.includes(t))
      .map(({ t, i }) => ({ key: t.id, name: t.name, points: t.line, end: t.line[t.line.length - 1], ...styleOf(i) }))
  })
  const spreads = computed(() =>
    isShot.value && compare.isOpen
      ? compare.columns
          .map(({ column }, i) => ({ key: column.id, outlines: column.spread, colour: styleOf(i).colour }))
          .filter((s) => s.outlines.length)
      : [],
  )
  const seenMarks = computed(() => {
    if (!isShot.value || compare.isOpen) return []
    const list = trials.trials
      .filter((t) => (t.shown || t.id === trials.mine?.id) && t.seenWhite)
      .map((t) => ({ key: t.id, from: t.line[t.line.length - 1], at: t.seenWhite as Point }))
    const { dragged } = trials
    return dragged ? [...list.filter((m) => m.key !== trials.mine?.id), { key: 'dragged', from: dragged, at: dragged }] : list
  })
  const asPlayed = computed(() => (isShot.value && !compare.isOpen ? trials.asPlayed : []))
  const guesses = computed(() => (isShot.value ? guess.marks : []))

  /** Of those that are compared, the stroke that is set up is drawn already: it only wants its letter. */
  const present = computed(() =>
    isShot.value && compare.isOpen
      ? compare.columns.filter(({ column }) => column.path.length > 1 && !lines.value.some((l) => l.key === column.id))
      : [],
  )
  const namings = computed((): Naming[] => [
    ...present.value.map(({ column, name }): Naming => ({
      key: `trial-${column.id}`,
      kind: 'strong',
      text: name,
      at: column.path[column.path.length - 1],
    })),
    ...lines.value.map((l): Naming => ({ key: `trial-${l.key}`, kind: 'trial', text: l.name, at: l.end, size: 48 })),
    ...guesses.value.map((g): Naming => ({ key: `guess-${g.key}`, kind: 'missed', text: g.name, at: g.at, size: 48 })),
  ])
  const clear = computed(() => lines.value.map((l) => l.points))

  return { lines, spreads, seenMarks, asPlayed, guesses, namings, clear }
})
