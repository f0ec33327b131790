import type { KnobRange } from './judgements'
import { degreeWords, figureWords, ownPace } from '../../lib/formats'

export type Knob = 'pace' | 'height' | 'side' | 'aim'

/** "3.8 to 5.1", "up to 5.1", "any within two steps": settings with which a stroke still does it; of the aim, how far it may be off to either side. */
export function rangeWords(knob: Knob, range: KnobRange, at: number): string {
  if (knob === 'aim') return `${degreeWords(Math.max(0, range.to - at), 2)} left, ${degreeWords(Math.max(0, at - range.from), 2)} right`
  const words = (v: number) => (knob === 'pace' ? ownPace(v) : figureWords(v, 2))
  const unit = knob === 'pace' ? '' : ' tips'
  if (range.isToLeast && range.isToMost) return knob === 'pace' ? 'any within two steps' : 'any within 0.6 of a tip'
  if (range.isToLeast) return `up to ${words(range.to)}${unit}`
  if (range.isToMost) return `from ${words(range.from)}${unit}`
  return `${words(range.from)} to ${words(range.to)}${unit}`
}
