import { skillName } from '../../domain/words'
import type { useClub, Kind } from '../../position/club'

/** What the three kinds are called, and what they are for. */
export const kindWords: Record<Kind, { title: string; one: string; about: string }> = {
  players: {
    title: 'Players',
    one: 'player',
    about: 'The player in hand is the one that reach, chances and advice are worked out for. Positions, frames and attempts know theirs.',
  },
  tables: {
    title: 'Tables',
    one: 'table',
    about:
      'A new position begins with the figures of the table in hand; those that are saved keep theirs. What trials of escapes teach is kept with the table.',
  },
  cues: {
    title: 'Cues',
    one: 'cue',
    about:
      'The lighter the end of the cue, the less side pushes the ball off its line. A new position begins with the figures of the cue in hand.',
  },
}

/** What tells one from another in a list. */
export function detailWords(kind: Kind, id: string, club: ReturnType<typeof useClub>): string {
  if (kind === 'players') {
    const player = club.find('players', id)
    return player ? `${skillName(player.skill)}, ${player.hand}-handed` : ''
  }
  if (kind === 'cues') return club.find('cues', id)?.tip ?? ''
  const changed = Object.keys(club.find('tables', id)?.conditions ?? {}).length
  return changed ? `${changed} ${changed === 1 ? 'figure' : 'figures'} of its own` : 'as a match table'
}
