import { useLocalStorage } from '@vueuse/core'
import { shallowRef } from 'vue'

/** One place that turns figures into words, and lengths into the units that the user likes. */

export type Units = 'mm' | 'inches'
export const units = useLocalStorage<Units>('deep-baize-units', 'mm')

const inch = 0.0254
const minus = (text: string) => (/^-0(\.0*)?$/.test(text) ? text.slice(1) : text.replace('-', '−'))

/** "−1.2". */
export const figureWords = (value: number, digits: number) => minus(value.toFixed(digits))

/** "87 %". */
export const percentWords = (share: number) => `${(share * 100).toFixed(0)} %`

/** "12.5°", "−0.03°". */
export const degreeWords = (degrees: number, digits = 0) => `${figureWords(degrees, digits)}°`

/** A length on the table, m: "94 mm" or "3.7 in". Parts of a millimetre where they tell. */
export const lengthWords = (metres: number, digits = 0) =>
  units.value === 'mm' ? `${figureWords(metres * 1000, digits)} mm` : `${figureWords(metres / inch, digits + 1)} in`

/** A way along the table, m: "1.8 m" or "5.9 ft". */
export const distanceWords = (metres: number) => (units.value === 'mm' ? `${metres.toFixed(1)} m` : `${(metres / inch / 12).toFixed(1)} ft`)

/** The own scale of paces of the player in hand, both numbers rising; without points it is the standard one. */
export const paceScale = shallowRef<readonly { own: number; standard: number }[]>([])

/** Straight between the points, through nothing at nothing, and beyond the last as between the last two. */
const alongScale = (value: number, from: 'own' | 'standard', to: 'own' | 'standard') => {
  const points = [{ own: 0, standard: 0 }, ...paceScale.value]
  if (points.length === 1) return value
  const at = points.findIndex((p, i) => i > 0 && (value <= p[from] || i === points.length - 1))
  const [a, b] = [points[at - 1], points[at]]
  return a[to] + ((value - a[from]) * (b[to] - a[to])) / (b[from] - a[from])
}

/** What a pace is typed in: the standard scale to the player's own numbers and back. */
export const paceUnit = {
  of: (standard: number) => alongScale(standard, 'standard', 'own'),
  standard: (own: number) => alongScale(own, 'own', 'standard'),
  get isOwn() {
    return paceScale.value.length > 0
  },
}

const paceFigure = (pace: number) => pace.toFixed(1).replace(/\.0$/, '')

/** A pace in the player's own numbers alone, where several stand side by side: "4", "5.4". */
export const ownPace = (pace: number) => paceFigure(paceUnit.of(pace))

/** "pace 4", "pace 5.4", no more digits than tell; "pace 5 (standard 4.4)" for a player with a scale of his own. */
export const paceWords = (pace = 0) => {
  const own = ownPace(pace)
  return `pace ${own}${own === paceFigure(pace) ? '' : ` (standard ${paceFigure(pace)})`}`
}

/** What a length is typed in: metres to figures and back. */
export const lengthUnit = {
  get name() {
    return units.value === 'mm' ? 'mm' : 'in'
  },
  get digits() {
    return units.value === 'mm' ? 0 : 1
  },
  of: (metres: number) => (units.value === 'mm' ? metres * 1000 : metres / inch),
  metres: (figure: number) => (units.value === 'mm' ? figure / 1000 : figure * inch),
}

const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })

/** A moment: "30 Nov 2026, 18:02". */
export const momentWords = (time: string) => moment.format(new Date(time))

/** A day of the calendar, as "2026-11-30": "30 Nov". */
export const dayWords = (date: string) => day.format(new Date(`${date}T12:00:00`))

/** "today", "yesterday", "3 days ago", "30 Nov": how long ago something was. */
export function daysAgoWords(time: string, now = new Date()): string {
  const midnight = (d: Date) => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime()
  const days = Math.round((midnight(now) - midnight(new Date(time))) / 86_400_000)
  return days <= 0 ? 'today' : days === 1 ? 'yesterday' : days < 15 ? `${days} days ago` : day.format(new Date(time))
}

/** "a", "a and b", "a, b and c". */
export const listWords = (words: readonly string[]) =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`

/** "1 point", "2 points". */
export const countWords = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`

export const sentence = (words: string) => (words ? words[0].toUpperCase() + words.slice(1) : '')
