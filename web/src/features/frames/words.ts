import type { FrameStep } from './sending'
import type { Schemas } from '../../api/client'
import { aBall } from '../../domain/balls'
import { endReasonWords as reasonWords, endReasons as reasons } from '../../domain/reasons'
import { countWords, lengthWords, percentWords } from '../../lib/formats'

/** What is said of a frame that is written down. */

export { reasons, reasonWords }

type State = Schemas['FrameRecordResult']['story']['state']
type StoryShot = Schemas['StoryShotResult']
type Break = Schemas['FrameRecordResult']['story']['breaks'][number]

export const tags = ['follow', 'screw', 'stun', 'side', 'cannon', 'rest'] as const satisfies readonly Schemas['StrokeTag'][]

export const kinds: Record<Schemas['ShotKind'], string> = {
  pot: 'potted',
  miss: 'missed',
  safety: 'safety',
  foul: 'foul',
  concede: 'conceded',
  award: 'frame awarded',
  lot: 'plays first, by the draw',
}

/** Who is at the table, and what is on. */
export function onWords(s: State, names: readonly string[]): string {
  if (s.awaitsLot) return 'Level: the black is respotted, the white in hand. Who won the draw and plays first?'
  if (s.isOver) return s.winner >= 0 ? `${names[s.winner]} wins the frame.` : 'The frame is over.'
  return `${names[s.turn]} at the table, ${aBall(s.on)} on${s.freeBall ? ' or a free ball' : ''}${s.inHand ? ', from the D' : ''}; break ${s.break}${s.isWarned ? '; warned: a third miss loses the frame' : ''}`
}

/** What is left, and what is needed. */
export function needWords(s: State): string {
  if (s.isOver) return ''
  const ahead = s.ahead > 0 ? `${s.ahead} ahead` : s.ahead < 0 ? `${-s.ahead} behind` : 'level'
  return `${s.pointsLeft} left, ${ahead}; ${s.toWin === 0 ? 'the other player needs penalties' : s.snookersRequired ? `needs ${countWords(s.snookersRequired, 'snooker')}` : `${s.toWin} to win`}`
}

/** One shot, as it is listed. */
export function shotWords(s: StoryShot, names: readonly string[]): string {
  if (s.shot.kind === 'award' || s.shot.kind === 'lot') return `${names[s.shot.player ?? 0]}, ${kinds[s.shot.kind]}`
  const parts = [s.shot.kind === 'pot' ? (s.shot.potted ?? []).join(' and ') : kinds[s.shot.kind]]
  if (s.shot.kind === 'pot' && s.on !== 'colour' && s.shot.potted?.[0] !== s.on) parts.push('free ball')
  if (s.penalty) parts.push(`${s.penalty} away`)
  if (s.shot.inOff) parts.push('in-off')
  if (s.shot.missCalled) parts.push('and a miss')
  if (s.shot.playAgain) parts.push('plays again')
  if (s.shot.replaced) parts.push('balls put back')
  if (s.shot.why) parts.push(reasonWords(s.shot.why))
  if (s.shot.white) parts.push(`white ${lengthWords(s.shot.white.x)} up, ${lengthWords(s.shot.white.y)} across`)
  if (s.shot.tags?.length) parts.push(s.shot.tags.join(', '))
  return parts.join(', ')
}

export function breakWords(b: Break, names: readonly string[]): string {
  const end = b.end
    ? `; ended by a ${kinds[b.end.kind] === 'missed' ? 'miss' : kinds[b.end.kind]} on ${aBall(b.endOn ?? '')}${b.end.why ? `, ${reasonWords(b.end.why)}` : ''}`
    : ''
  return `${names[b.player]}, ${countWords(b.pots, 'pot')}${end}`
}

type Tally = Schemas['FrameRecordResult']['story']['players'][number]

/** What is counted of the two players, a row each. */
export function figureRows(players: readonly Tally[]): { label: string; first: string[]; second: string[] }[] {
  const row = (label: string, of: (p: Tally) => string[]) => ({ label, first: of(players[0]), second: of(players[1]) })
  return [
    row('Points potted', (p) => [String(p.points)]),
    row('Highest break', (p) => [String(p.highestBreak)]),
    row('Pots made', (p) => [`${p.pots} of ${p.pots + p.misses} (${percentWords(p.potShare)})`]),
    row('Safeties', (p) => [String(p.safeties)]),
    row('Fouls, points away', (p) => [`${p.fouls}, ${p.pointsGivenAway}`]),
    row('Strokes', (p) => p.tags.map((t) => `${t.tag} ${t.potted} of ${t.played}`)),
    row('Where it ends', (p) =>
      p.ends.slice(0, 4).map((e) => `${e.count}× ${kinds[e.kind]}, ${e.on}${e.why ? `, ${reasonWords(e.why)}` : ''}`),
    ),
  ]
}

/** What was entered and is not sent yet, in a word or two. */
export function stepWords(step: FrameStep): string {
  if (step.undo) return 'the last taken back'
  if (step.amend) return `of the last: ${reasons.find((r) => r.why === step.amend.why)?.label ?? 'no reason'}`
  const { kind, potted } = step.add
  return kind === 'pot' ? (potted ?? []).join(' and ') : kind === 'miss' ? 'missed' : kind
}
