import type { Reference } from '../../api/client'
import { cushionDistances } from '../../domain/cushions'
import type { Step } from './routines'
import type { AttemptEntry } from './session'

type Demand = Step['demands'][number]
type Place = { x: number; y: number }
type Seen = Pick<AttemptEntry, 'said' | 'white' | 'ball' | 'reasons' | 'score'>
type Sizes = Pick<Reference, 'length' | 'width' | 'ballRadius'>

/** Whether a ball's middle lies in an area: a circle, or a box. */
function isInside(area: NonNullable<Demand['area']>, at: Place): boolean {
  if (area.radius != null) return Math.hypot(at.x - area.x, at.y - area.y) <= area.radius
  return at.x >= area.x && at.x <= area.toX! && at.y >= area.y && at.y <= area.toY!
}

function isNearCushion(demand: Demand, at: Place, { length, width, ballRadius }: Sizes): boolean {
  const distances = cushionDistances(at, { length, width })
  const distance = demand.cushion ? distances[demand.cushion] : Math.min(...Object.values(distances))
  return distance - ballRadius <= demand.within!
}

function isMet(demand: Demand, seen: Seen, sizes: Sizes): boolean | null {
  const said = seen.said ?? null
  switch (demand.kind) {
    case 'whiteIn':
      return seen.white ? isInside(demand.area!, seen.white) : said
    case 'ballIn':
      return seen.ball ? isInside(demand.area!, seen.ball) : said
    case 'whiteOnCushion':
      return seen.white ? isNearCushion(demand, seen.white, sizes) : said
    case 'ballOnCushion':
      return seen.ball ? isNearCushion(demand, seen.ball, sizes) : said
    case 'noSide':
      return seen.reasons?.some((r) => r === 'left' || r === 'right') ? false : said
    case 'score':
      return seen.score != null ? seen.score >= demand.points! : said
    // What the thumb says of the rest is all that is known of it.
    default:
      return said
  }
}

/**
 * Whether an attempt counts as done, by the rule of its step: what the core says once it is sent. Both are held to the same cases
 * (tests/cases/counted-attempts.json).
 * @param step On the side that is played.
 */
export function counts(step: Step, seen: Seen, sizes: Sizes): boolean {
  const met = step.demands.map((d) => isMet(d, seen, sizes))
  if (met.includes(false)) return false
  return met.includes(null) ? (seen.said ?? false) : true
}
