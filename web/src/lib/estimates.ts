import { ref } from 'vue'
import type { Schemas } from '../api/client'
import { figureWords, percentWords } from './formats'

/** One place that turns figures found by playing strokes into words, with their error where that is wanted. */

export type Estimate = Schemas['Estimate']

/** Whether figures are told with their error: on a click, for all lists alike. */
export const errorsShown = ref(false)

/** A figure without an error. */
export const exactly = (value: number): Estimate => ({ value, error: 0, strokes: 0 })

const withError = (words: string, e: Estimate, error: string) => (errorsShown.value && e.error > 0 ? `${words} ± ${error}` : words)

/** The share that was done, 0 to 1; 0 of nothing. */
export const doneShare = (s: { done: number; of: number }) => s.done / Math.max(1, s.of)

/** "87 %", or "87 % ± 0.8". */
export const shareWords = (e: Estimate) => withError(percentWords(Math.min(1, Math.max(0, e.value))), e, (e.error * 100).toFixed(1))

/** ", miscue 2.4 %": told where it happens at all; a few in a thousand are not nothing. */
export const miscueWords = (miscue: Estimate | null | undefined) =>
  !miscue || miscue.value < 0.0005 ? '' : `, miscue ${miscue.value < 0.01 ? `${(miscue.value * 100).toFixed(1)} %` : shareWords(miscue)}`

/** "3.4", or "3.4 ± 0.2". */
export const amountWords = (e: Estimate, digits = 1) => withError(figureWords(e.value, digits), e, e.error.toFixed(Math.max(1, digits)))

/** "+3.4", "−0.2". */
export const signedWords = (e: Estimate, digits = 1) => (e.value >= 0 ? '+' : '') + amountWords(e, digits)

/** A value in the measure of an answer: "52 %" of frames won, or "+3.4" points. */
export const valueWords = (value: Estimate, unit: string) => (unit === 'points' ? signedWords(value) : shareWords(value))

/** "by 512 strokes": said where the error is. */
export const strokesWords = (e: Estimate) => (errorsShown.value && e.strokes ? ` by ${e.strokes.toLocaleString('en')} strokes` : '')

/** What a list says of one that cannot be told from the best. */
export const levelWords = 'level with the best'
