import type { Schemas, Shot, ShotEvent } from '../api/client'
import { nameOf, pocketName, theBall } from '../domain/balls'
import { cushionCountWords, cushionNames, whereWords } from '../domain/words'
import { lengthWords, listWords, sentence } from '../lib/formats'
import { withoutPushes } from './events'

/** What a shot does, in words. */

export function eventWords(e: ShotEvent): string {
  const ball = nameOf(e.ball)
  switch (e.kind) {
    case 'strike':
      return `${ball} is struck`
    case 'ball':
      return `${ball} meets ${nameOf(e.other!)}`
    case 'cushion':
      return `${ball} off the ${cushionNames[e.cushion!]} cushion`
    case 'jaw':
      return `${ball} touches a jaw, ${pocketName(e.pocket!)}`
    case 'pot':
      return e.ball === 'white' ? `in-off: white in the ${pocketName(e.pocket!)} pocket` : `${ball} in the ${pocketName(e.pocket!)} pocket`
    case 'bed':
      return `${ball} comes down on the bed`
    case 'off':
      return `${ball} leaves the table`
    case 'roll':
      return `${ball} begins to roll`
    case 'stop':
      return `${ball} stops`
  }
}

/** One sentence on what comes of the shot: "Blue in the top yellow-side pocket; white off two cushions and into red 4, in baulk, 120 mm off the baulk cushion." */
export function outcomeWords({
  simulation,
  whiteRests,
  cut,
  miss,
}: Pick<Shot, 'simulation' | 'whiteRests'> & Partial<Pick<Shot, 'cut' | 'miss'>>): string {
  const off = simulation.finals.filter((f) => f.pocket === 'off')
  const potted = simulation.finals.filter((f) => f.pocket && f.pocket !== 'off' && f.id !== 'white')
  const white = simulation.finals.find((f) => f.id === 'white')!
  const met = simulation.events
    .filter((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white'))
    .map((e) => (e.ball === 'white' ? e.other! : e.ball))
  const what = potted.length
    ? listWords(potted.map((f) => `${nameOf(f.id)} in the ${pocketName(f.pocket!)} pocket`))
    : cut && miss
      ? `${theBall(cut.ball)} missed, ${missWords(miss)}`
      : met.length
        ? `nothing potted, ${theBall(met[0])} hit first`
        : 'no ball hit'
  if (off.length) return sentence(`${what}; ${listWords(off.map((f) => theBall(f.id)))} off the table: a foul.`)
  if (white.pocket) return sentence(`${what}; in-off, ${pocketName(white.pocket)} pocket.`)
  const way = whiteWay(withoutPushes(simulation.events))
  const more = way.length > mostOfWay ? [...way.slice(0, mostOfWay), `on to ${way.length - mostOfWay} more`] : way
  return sentence(`${what}; white ${more.length ? `${listWords(more)}, ` : ''}stops ${whiteRests ? whereWords(whiteRests) : ''}.`)
}

/** "14 mm thick, near jaw": how a pot was missed. */
export function missWords({ side, off, short, jaw }: Schemas['PotMissResult']): string {
  if (short !== null) return `${lengthWords(short)} short of the pocket`
  const words = { thick: 'thick', thin: 'thin', left: 'to the left', right: 'to the right' }[side]
  return `${lengthWords(off)} ${words}${jaw ? `, ${jaw} jaw` : ''}`
}

/** Of the white's way so many things are said. */
const mostOfWay = 4

/** "off one cushion", "into red 2", "off two cushions": what the white meets on its way, in order; the ball it met first is said already. */
function whiteWay(events: ShotEvent[]): string[] {
  const way: string[] = []
  let [cushions, first] = [0, '']
  const endOfCushions = (onto = '') => {
    if (cushions) way.push(`off ${cushionCountWords(cushions)}${onto}`)
    cushions = 0
  }
  for (const e of events) {
    if (e.kind === 'cushion' && e.ball === 'white') cushions++
    if (e.kind !== 'ball' || (e.ball !== 'white' && e.other !== 'white')) continue
    const ball = e.ball === 'white' ? e.other! : e.ball
    if (!first) {
      first = ball
      endOfCushions(` on to ${theBall(ball)}`)
    } else {
      endOfCushions()
      way.push(`${ball === first ? 'back ' : ''}into ${theBall(ball)}`)
    }
  }
  endOfCushions()
  return way
}
