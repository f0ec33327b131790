import type { Point } from './layer'

/** Where a hand is on a drawing, in the drawing's own units. */
export type Hand = Point & {
  /** Units of the drawing for a px of the screen. */
  perPixel: number
  isTouch: boolean
  isShifted: boolean
  /** Beyond the frame of the drawing. */
  isOutside: boolean
}
/** What a hand holds, until it lets go. */
export type Grip = {
  move: (hand: Hand) => void
  up: (hand: Hand) => void
  /** A second finger has come down, or the system has taken the touch away. */
  cancel?: () => void
  /** Under a finger a glass shows what it covers, with these words. */
  glass?: (hand: Hand) => string
}
export type Hands = {
  /** Takes what is under the hand; null leaves the hand to the camera. */
  down: (hand: Hand) => Grip | null
  hover?: (hand: Hand | null) => void
}
