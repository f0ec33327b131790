import type { ShotEvent, Simulation } from '../api/client'

/** Contacts, cushions and pots carry a number, in the list and on the plan; when a ball begins to roll or stops is only listed. */
export function numberedEvents(simulation: Simulation): { number: number; event: ShotEvent }[] {
  return simulation.events
    .filter((e) => e.kind === 'ball' || e.kind === 'cushion' || e.kind === 'jaw' || e.kind === 'pot')
    .map((event, i) => ({ number: i + 1, event }))
}

/** What the list shows: all that is numbered, and the white's own rolling and stopping. */
export function listedEvents(simulation: Simulation): { number: number | null; event: ShotEvent }[] {
  const numbers = new Map(numberedEvents(simulation).map((n) => [n.event, n.number]))
  return simulation.events
    .filter((e) => numbers.has(e) || e.ball === 'white')
    .map((event) => ({ number: numbers.get(event) ?? null, event }))
}
