import type { Schemas } from '../api/client'

type Step = Schemas['Step']

/** On the other side of the table: what the server does with a step, for the drawing alone. */
export function mirrored(step: Step, width: number): Step {
  const swap = (name: string) => name.replace(/^(yellow|green)/, (side) => (side === 'yellow' ? 'green' : 'yellow'))
  const { stroke } = step
  return {
    ...step,
    balls: step.balls.map((b) => ({ id: swap(b.id), x: b.x, y: width - b.y })),
    stroke: stroke && {
      ...stroke,
      aim: -stroke.aim,
      side: -stroke.side,
      pot: stroke.pot ? { ...stroke.pot, ball: swap(stroke.pot.ball), pocket: swap(stroke.pot.pocket) } : stroke.pot,
    },
    demands: step.demands.map((d) => ({
      ...d,
      cushion: d.cushion && swap(d.cushion),
      ball: d.ball && swap(d.ball),
      other: d.other && swap(d.other),
      area:
        d.area && d.area.radius !== null && d.area.radius !== undefined
          ? { ...d.area, y: width - d.area.y }
          : d.area && { ...d.area, y: width - d.area.toY!, toY: width - d.area.y },
    })),
  }
}

/**
 * A step as it is played: as laid, or on the other side of the table.
 * @param table Its width, m; only a step on the other side needs it.
 */
export const onSide = (step: Step, isOther: boolean | null | undefined, table: { width: number } | null): Step =>
  isOther ? mirrored(step, table!.width) : step
