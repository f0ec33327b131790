import { skillName } from '../../domain/words'
import type { useClub, Kind } from '../../position/club'

/** What the three kinds are called, and what they are for. */
export const kindWords: Record<Kind, { title: string; one: string; about: string }> = {
  players: {
    title: 'Players',
    one: 'player',
    about: 'Reach, chances and advice are worked out for the current player. Positions, frames and attempts remember theirs.',
  },
  tables: {
    title: 'Tables',
    one: 'table',
    about:
      'New positions use the conditions of the current table; saved ones keep theirs. Corrections learned from escapes are kept with the table.',
  },
  cues: {
    title: 'Cues',
    one: 'cue',
    about: 'The lighter the end of the cue, the less side pushes the ball off line. New positions use the current cue.',
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
