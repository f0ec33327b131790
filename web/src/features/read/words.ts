import type { Schemas } from '../../api/client'
import { nameOf, pocketName } from '../../domain/balls'
import { reachNeedWords } from '../../domain/words'
import { degreeWords, lengthWords, listWords, percentWords } from '../../lib/formats'

/** What is said of the pots there are, and of places to be. */

/** Why a ball is not on, by the pocket that comes nearest. */
export function whyNotWords(option: Pick<Schemas['PotOptionResult'], 'obstacles' | 'cut'>): string {
  const pocket = `${pocketName(option.cut.pocket)} pocket`
  const { obstacles, cut } = option
  if (obstacles.length) {
    const names = listWords([...new Set(obstacles.map((o) => nameOf(o.ball)))].slice(0, 3))
    return `${names} in the way of ${obstacles.every((o) => o.ofCueBall) ? 'the white' : obstacles.some((o) => o.ofCueBall) ? 'both' : 'the ball'} (${pocket})`
  }
  if (cut.fault === 'offJaw') return `only off the far jaw (${pocket})`
  return `does not get there with this stroke (${pocket})`
}

/** Why a place is as good as it is. */
export function qualityWords(q: Schemas['QualityResult']): string {
  if (!q.ball) return 'Nothing is on from here.'
  const parts = [
    `${nameOf(q.ball)} into the ${pocketName(q.pocket!)} pocket at ${percentWords(q.chance)}`,
    `${degreeWords(q.cutDegrees)}, ${lengthWords(q.cueBallDistance)} away`,
  ]
  const against: string[] = []
  if (q.angle < 0.95) against.push(q.cutDegrees < 15 ? 'too straight' : 'too steep')
  if (q.distance < 0.95) against.push(q.cueBallDistance < 0.12 ? 'too close' : 'far')
  if (q.cushion < 0.95) against.push('on a cushion')
  if (q.reach && reachNeedWords(q.reach)) against.push(reachNeedWords(q.reach))
  if (q.others) parts.push(`${q.others} more on`)
  return `${parts.join(', ')}${against.length ? `; ${against.join(', ')}` : '; a good angle and distance'}.`
}
