import type { Schemas } from '../../api/client'
import { figureWords } from '../../lib/formats'

type Part = keyof Schemas['SkillEntry']

/** The parts of a player's error as he would say them, and what each of them does. */
export const partNames: Record<Exclude<Part, 'tip'>, { name: string; hint: string; digits: number }> = {
  direction: { name: 'Direction', hint: 'how far the white starts off line', digits: 3 },
  sighting: { name: 'Sighting', hint: 'how far the contact is misjudged on a straight pot; more on a cut', digits: 2 },
  allowance: { name: 'Allowance', hint: 'error in the allowance for side: squirt, swerve and throw', digits: 1 },
  pace: { name: 'Pace', hint: 'of the speed of the cue', digits: 1 },
  height: { name: 'Height', hint: 'how far above or below the intended point the tip lands: follow and screw', digits: 2 },
  side: { name: 'Side', hint: 'how far to one side of the intended point the tip lands: unmeant side', digits: 2 },
  cushion: { name: 'Cushions', hint: 'off each cushion on the way; twice that for a double', digits: 2 },
  rest: { name: 'Rest', hint: 'how much worse you are with the rest or the other hand', digits: 2 },
  evenness: { name: 'Evenness', hint: '2: many bad strokes; 30: hardly any', digits: 0 },
}

export type CurveKind = Schemas['CurveKind']

/** What a curve shows: its title, what its scale is, and how a point of the scale is said. */
export const curveWords: Record<CurveKind, { title: string; scale: string; at: (x: number) => string }> = {
  distance: { title: 'Straight, ever longer', scale: 'white to red, m; red 1 m from the pocket', at: (x) => `${x} m` },
  openRed: { title: 'A red in the open', scale: 'white to red, m; cut by 20°, 0.7 m on', at: (x) => `${x} m` },
  double: { title: 'A double, ever thinner', scale: 'cut; into a middle pocket, 1.7 m on', at: (x) => `${x}°` },
  cut: { title: 'Ever thinner', scale: 'cut; 0.6 m to the red, 0.8 m on', at: (x) => `${x}°` },
  power: { title: 'Ever harder', scale: 'pace; half-ball', at: (x) => `pace ${x}` },
  side: {
    title: 'With side',
    scale: 'tips, helping to the right; half-ball, pace 5',
    at: (x) => `${Math.abs(x)} tips ${x < 0 ? 'wrong' : 'helping'}`,
  },
  miscue: { title: 'Miscues, ever lower', scale: 'tips below the centre', at: (x) => `${x} tips below` },
  position: { title: 'The white within 150 mm', scale: 'how far it runs, m; half-ball black', at: (x) => `${x} m` },
  reach: { title: 'Out of reach', scale: 'natural · stretch · rest or other hand · steep butt', at: (x) => `errors ×${figureWords(x, 2)}` },
}

/** "5 of ten go in, one miscue". */
export function pictureWords(strokes: readonly Schemas['PicturedStroke'][]): string {
  const potted = strokes.filter((s) => s.isPotted).length
  const slipped = strokes.filter((s) => s.isMiscue).length
  return `${potted} of ${strokes.length} go in${slipped ? `, ${slipped} ${slipped === 1 ? 'miscue' : 'miscues'}` : ''}`
}
