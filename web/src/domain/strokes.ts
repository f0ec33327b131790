import type { Content, Draft, Pot, SavedPosition, Schemas, Stroke } from '../api/client'

export const plainStroke: Stroke = { aim: 0, side: 0, height: 0, pace: 4, elevation: null, pot: null, free: false }

/** A pot straight into the middle of a pocket. */
export const plainPot = (ball: string, pocket: string): Pot => ({ ball, pocket, part: 0, through: null, off: null })

export function copy<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}

/** A stroke with all its parts, as the desk keeps it: what was left out is plain. */
export function strokeOf(entry: Schemas['StrokeEntry'] | null | undefined): Stroke {
  return { ...plainStroke, ...copy(entry ?? {}), pot: entry?.pot ? { ...plainPot('', ''), ...copy(entry.pot) } : null }
}

/** A stroke that was advised, as it is set up: one with the player's own elevation is played as the cue lies. */
export const advised = (entry: Schemas['StrokeEntry'], naturalElevation: number): Stroke => {
  const stroke = strokeOf(entry)
  return stroke.elevation === naturalElevation ? { ...stroke, elevation: null } : stroke
}

/** Balls, stroke, conditions and frame as the desk keeps them. */
export function contentOf(content: SavedPosition['content']): Content {
  return {
    balls: copy(content.balls),
    stroke: strokeOf(content.stroke),
    conditions: copy(content.conditions ?? {}),
    ...(content.frame ? { frame: copy(content.frame) } : {}),
  }
}

export const draftOf = (p: Pick<SavedPosition, 'name' | 'about' | 'content'> & { trials?: SavedPosition['trials'] }): Draft => ({
  name: p.name,
  about: p.about,
  content: contentOf(p.content),
  trials: copy(p.trials ?? []),
})

/** Whether two pots are one: the ball, the pocket, by way of the same ball or cushion. */
export const isSamePot = (a: Pot | null, b: Pot | null) =>
  a?.ball === b?.ball && a?.pocket === b?.pocket && a?.through === b?.through && a?.off === b?.off

/** Whether two strokes are struck alike; the aim of a pot follows from the pot. */
export const isSameStroke = (a: Stroke, b: Stroke) =>
  !a.free === !b.free &&
  a.height === b.height &&
  a.side === b.side &&
  a.pace === b.pace &&
  isSamePot(a.pot, b.pot) &&
  (a.pot?.part ?? 0) === (b.pot?.part ?? 0) &&
  (!!a.pot || a.aim === b.aim)

/** A stroke whose pace is on the scale that was there first, 0.40·1.375^(pace − 1) m/s: the same speed on the present one, 0.24·pace^1.47. */
export function ofFirstScale<T extends { pace?: number }>(stroke: T): T {
  const speed = 0.4 * 1.375 ** ((stroke.pace ?? 4) - 1)
  return { ...stroke, pace: Math.min(10, Math.max(1, (speed / 0.24) ** (1 / 1.47))) }
}
