import type { Schemas } from '../../api/client'

type Part = keyof Schemas['SkillEntry']

/** The parts of a player's error as he would say them, and what each of them does. */
export const partNames: Record<Part, { name: string; hint: string; digits: number }> = {
  direction: { name: 'Direction', hint: 'how far the white leaves off the line', digits: 3 },
  sighting: { name: 'Sighting', hint: 'how far the contact is misjudged on a straight pot; more on a cut', digits: 2 },
  allowance: { name: 'Allowance', hint: 'of what is allowed for side: squirt, swerve, throw', digits: 1 },
  pace: { name: 'Pace', hint: 'of the speed of the cue', digits: 1 },
  tip: { name: 'Tip', hint: 'how far the tip lands beside the place meant; far enough and it slips off', digits: 2 },
  evenness: { name: 'Evenness', hint: '2: many bad strokes; 30: hardly any', digits: 0 },
}

export type CurveKind = Schemas['CurveKind']

/** What a curve shows: its title, what its scale is, and how a point of the scale is said. */
export const curveWords: Record<CurveKind, { title: string; scale: string; at: (x: number) => string }> = {
  distance: { title: 'Straight, ever longer', scale: 'white to red, m; red 1 m from the pocket', at: (x) => `${x} m` },
  cut: { title: 'Ever thinner', scale: 'cut; 0.6 m to the red, 0.8 m on', at: (x) => `${x}°` },
  power: { title: 'Ever harder', scale: 'pace; half-ball', at: (x) => `pace ${x}` },
  side: {
    title: 'With side',
    scale: 'tips, helping to the right; half-ball, pace 5',
    at: (x) => `${Math.abs(x)} tips ${x < 0 ? 'wrong' : 'helping'}`,
  },
  miscue: { title: 'Miscues, ever lower', scale: 'tips below the centre', at: (x) => `${x} tips below` },
  position: { title: 'The white within 150 mm', scale: 'how far it runs, m; half-ball black', at: (x) => `${x} m` },
  reach: { title: 'Out of reach', scale: 'natural · stretch · over a ball · rest · both', at: (x) => `errors ×${x}` },
}

/** "5 of ten go in, one miscue". */
export function pictureWords(strokes: readonly Schemas['PicturedStroke'][]): string {
  const potted = strokes.filter((s) => s.isPotted).length
  const slipped = strokes.filter((s) => s.isMiscue).length
  return `${potted} of ${strokes.length} go in${slipped ? `, ${slipped} ${slipped === 1 ? 'miscue' : 'miscues'}` : ''}`
}
