import { useClub } from './club'
import { useDraft } from './draft'

/** Figures as they can be compared, whatever their order. */
export const sortedFigures = (figures: Record<string, number>) => JSON.stringify(Object.entries(figures).sort())

/**
 * Changes what is in hand, or its figures. The table that is laid out follows, unless it has figures of its own; undo goes back. Says
 * whether it has the figures of what is in hand afterwards.
 */
export async function followingTable(change: () => Promise<unknown>): Promise<boolean> {
  const [club, position] = [useClub(), useDraft()]
  const isTheirs = sortedFigures(position.content.conditions) === sortedFigures(club.conditions)
  await change()
  if (isTheirs && sortedFigures(position.content.conditions) !== sortedFigures(club.conditions)) {
    position.content.conditions = { ...club.conditions }
    position.commit()
  }
  return isTheirs
}
