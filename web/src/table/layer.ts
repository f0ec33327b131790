import type { Component } from 'vue'
import type { Naming } from './labels'

export type Point = { x: number; y: number }
/** Where the hand is, m of the table, and how far it reaches there. */
export type At = Point & { reach: number }

/** What is held of a layer. */
export type LayerGrip = {
  move: (to: Point) => void
  /** The hand has let go, having moved or not. */
  done?: () => void
  /** Under a finger: what the glass says. */
  words?: (at: Point) => string
}

/** What is drawn on the plan by someone else: lines and areas, what they are called, and what of them can be taken in hand. Metres. */
export type Layer = {
  key: string
  /** Drawn within the plan's own drawing, by useDrawing. */
  component?: Component
  /** What it wants called by a name; layers that come first choose their places first. */
  namings?: () => Naming[]
  /** Lines that labels must keep clear of. */
  lines?: () => Point[][]
  /** Small rings where something happens. */
  marks?: () => (Point & { key: string | number })[]
  /** Balls that its lists call by name: their numbers are shown. */
  named?: () => string[]
  /** Takes what is under the hand, if it is this layer's: what is to be done as the hand moves, or with more to say. */
  grip?: (at: At) => ((to: Point) => void) | LayerGrip | null
  /** It asks for a place, which may be where a ball lies: its grip comes before balls and the line of aim. */
  asksForPlace?: () => boolean
  /** What of it belongs to "what matters", m; the lines unless said. */
  matters?: () => Point[]
  /** The hand is over a place without holding anything, or has left. */
  hover?: (at: Point | null) => void
}
