import { nameOf } from '../../domain/balls'
import type { Preferences } from './plans'

export type Wish = { key: string; words: string; without: (wishes: Preferences) => void }

/** The wishes that are made, each with how it is taken back. */
export function wishesOf(w: Preferences): Wish[] {
  const list: Wish[] = []
  if (w.next) list.push({ key: 'next', words: `next: ${nameOf(w.next)}`, without: (p) => (p.next = null) })
  for (const ball of w.later)
    list.push({ key: `later ${ball}`, words: `later: ${nameOf(ball)}`, without: (p) => (p.later = p.later.filter((b) => b !== ball)) })
  for (const ball of w.keepOff)
    list.push({ key: `off ${ball}`, words: `keep off ${nameOf(ball)}`, without: (p) => (p.keepOff = p.keepOff.filter((b) => b !== ball)) })
  if (w.noCushion) list.push({ key: 'cushion', words: 'no cushion', without: (p) => (p.noCushion = false) })
  if (w.softOnly) list.push({ key: 'soft', words: 'soft only', without: (p) => (p.softOnly = false) })
  if (w.plainOnly) list.push({ key: 'plain', words: 'no side', without: (p) => (p.plainOnly = false) })
  if (w.avoidCannons) list.push({ key: 'cannons', words: 'avoid cannons', without: (p) => (p.avoidCannons = false) })
  if (w.followFirst) list.push({ key: 'follow', words: 'follow first', without: (p) => (p.followFirst = false) })
  return list
}
