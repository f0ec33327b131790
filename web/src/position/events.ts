import type { Shot, ShotEvent, Simulation } from '../api/client'
import { nameOf, pocketName } from '../domain/balls'
import { cushionCountWords, offCushionsWords, whereWords } from '../domain/words'
import { listWords } from '../lib/formats'

/** A ball that pushes another along touches it again and again: contacts of the same two within so many seconds are one. */
const push = 0.1

/** Leaves out, of the contacts of two balls that stay together, all but the first. */
export function withoutPushes(events: ShotEvent[]): ShotEvent[] {
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
    .filter((e) => e.kind === 'ball' || e.kind === 'cushion' || e.kind === 'jaw' || e.kind === 'pot' || e.kind === 'off')
    .map((event, i) => ({ number: i + 1, event }))
}

/** Of contacts that the white has no part in, so many are listed: an opened pack has hundreds. */
export const mostOthers = 40

/** What the list of all shows: all of the white, all pots, and of the other balls' contacts the first ones; and how many more of those there are. */
export function listedEvents(simulation: Simulation): { list: { number: number | null; event: ShotEvent }[]; more: number } {
  const numbers = new Map(numberedEvents(simulation).map((n) => [n.event, n.number]))
  let others = 0
  const list = withoutPushes(simulation.events)
    .filter(
      (e) =>
        e.ball === 'white' || e.other === 'white' || e.kind === 'pot' || e.kind === 'off' || (numbers.has(e) && ++others <= mostOthers),
    )
    .map((event) => ({ number: numbers.get(event) ?? null, event }))
  return { list, more: Math.max(0, others - mostOthers) }
}

/** Of a shot what matters, in order: at most four things, each with its moment, s, and its place, m. */
export type MainEvent = { time: number; x: number; y: number; words: string; isLoss?: boolean }
const most = 4

/**
 * Highlights of a shot: the ball met first, what goes in, what the white does on its way, and where it stops. Where there is more, the
 * way of the white is told as one.
 */
export function mainEvents({ simulation, whiteRests }: Pick<Shot, 'simulation' | 'whiteRests'>): MainEvent[] {
  const events = withoutPushes(simulation.events)
  const ofWhite = events.filter((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white'))
  const met = (e: ShotEvent) => (e.ball === 'white' ? e.other! : e.ball)
  const at = (e: ShotEvent, words: string, isLoss = false): MainEvent => ({
    time: e.time,
    x: e.x,
    y: e.y,
    words,
    ...(isLoss ? { isLoss } : {}),
  })
  const list: MainEvent[] = []
  if (ofWhite[0]) list.push(at(ofWhite[0], `white meets ${nameOf(met(ofWhite[0]))}`))

  const pots = events.filter((e) => e.kind === 'pot' && e.ball !== 'white')
  if (pots.length === 1) list.push(at(pots[0], `${nameOf(pots[0].ball)} in the ${pocketName(pots[0].pocket!)} pocket`))
  else if (pots.length) list.push(at(pots[0], `${listWords(pots.map((p) => nameOf(p.ball)))} go in`))

  const cushions = events.filter((e) => e.kind === 'cushion' && e.ball === 'white')
  const balls = [...new Set(ofWhite.slice(1).map(met))].filter((id) => id !== (ofWhite[0] && met(ofWhite[0])))
  const ways: MainEvent[] = []
  if (cushions.length)
    ways.push(
      at(
        cushions[0],
        `white ${cushions.length < 3 ? offCushionsWords(cushions.map((c) => c.cushion!)) : `off ${cushionCountWords(cushions.length)}`}`,
      ),
    )
  if (balls.length) {
    const first = ofWhite.slice(1).find((e) => met(e) === balls[0])!
    ways.push(
      at(first, `white runs into ${listWords(balls.slice(0, 2).map(nameOf))}${balls.length > 2 ? ` and ${balls.length - 2} more` : ''}`),
    )
  }
  const off = events.filter((e) => e.kind === 'off')
  if (off.length) list.push(at(off[0], `${listWords(off.map((e) => nameOf(e.ball)))} off the table`, true))
  const inOff = events.find((e) => e.kind === 'pot' && e.ball === 'white')
  const white = simulation.finals.find((f) => f.id === 'white')
  if (inOff) list.push(at(inOff, `in-off, ${pocketName(inOff.pocket!)} pocket`, true))
  else if (white && !white.pocket && whiteRests && simulation.events.length > 1)
    list.push({ time: simulation.duration, x: white.x, y: white.y, words: `white stops ${whereWords(whiteRests)}` })

  const room = most - list.length
  if (ways.length <= room) list.push(...ways)
  else if (room > 0)
    list.push({ ...ways.sort((a, b) => a.time - b.time)[0], words: `${ways[0].words}, then ${ways[1].words.replace('white ', '')}` })
  return list.sort((a, b) => a.time - b.time)
}
