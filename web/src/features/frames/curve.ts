import type { Schemas } from '../../api/client'

type StoryShot = Schemas['StoryShotResult']
/** A break as it was made: by whom, from which shot to which, and the balls in order. */
export type BreakRun = { player: number; from: number; to: number; points: number; balls: string[] }

/** Runs of shots that scored one after the other by one player, in the order in which they were made. */
export function breakRuns(shots: readonly StoryShot[]): BreakRun[] {
  const runs: BreakRun[] = []
  shots.forEach((s, i) => {
    if (s.points <= 0) return
    const last = runs[runs.length - 1]
    const balls = s.shot.potted ?? []
    if (last && last.to === i - 1 && last.player === s.player) {
      last.to = i
      last.points += s.points
      last.balls.push(...balls)
    } else runs.push({ player: s.player, from: i, to: i, points: s.points, balls: [...balls] })
  })
  return runs
}

/** The break that is under way: the last run, if the last shot scored. */
export const presentRun = (shots: readonly StoryShot[]): BreakRun | null => {
  const run = breakRuns(shots).pop()
  return run && run.to === shots.length - 1 ? run : null
}

/** A score that rises in steps, from 0 before the first shot, as points of a line: shot number and score. */
export function steps(scores: readonly number[]): { x: number; y: number }[] {
  const points = [{ x: 0, y: 0 }]
  scores.forEach((y, i) => {
    const last = points[points.length - 1].y
    if (y !== last) points.push({ x: i + 1, y: last })
    points.push({ x: i + 1, y })
  })
  return points
}
