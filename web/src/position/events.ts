import type { ShotEvent, Simulation } from '../api/client'

/** A ball that pushes another along touches it again and again: contacts of the same two within so many seconds are one. */
const push = 0.1

/** Leaves out, of the contacts of two balls that stay together, all but the first. */
function withoutPushes(events: ShotEvent[]): ShotEvent[] {
  const last = new Map<string, number>()
  return events.filter((e) => {
    if (e.kind !== 'ball') return true
    const pair = [e.ball, e.other].sort().join()
    const again = e.time - (last.get(pair) ?? -Infinity) < push
    last.set(pair, e.time)
    return !again
  })
}

/** Contacts, cushions and pots carry a number, in the list and on the plan; when a ball begins to roll or stops is only listed. */
export function numberedEvents(simulation: Simulation): { number: number; event: ShotEvent }[] {
  return withoutPushes(simulation.events)
    .filter((e) => e.kind === 'ball' || e.kind === 'cushion' || e.kind === 'jaw' || e.kind === 'pot')
    .map((event, i) => ({ number: i + 1, event }))
}

/** Of contacts that the white has no part in, so many are listed: an opened pack has hundreds. */
export const mostOthers = 40

/** What the list shows: all of the white, all pots, and of the other balls' contacts the first ones; and how many more of those there are. */
export function listedEvents(simulation: Simulation): { list: { number: number | null; event: ShotEvent }[]; more: number } {
  const numbers = new Map(numberedEvents(simulation).map((n) => [n.event, n.number]))
  let others = 0
  const list = withoutPushes(simulation.events)
    .filter((e) => e.ball === 'white' || e.other === 'white' || e.kind === 'pot' || (numbers.has(e) && ++others <= mostOthers))
    .map((event) => ({ number: numbers.get(event) ?? null, event }))
  return { list, more: Math.max(0, others - mostOthers) }
}
