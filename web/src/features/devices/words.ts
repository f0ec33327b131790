import type { Schemas } from '../../api/client'
import { kindOf, pocketName, theBall } from '../../domain/balls'
import { countWords, figureWords, lengthWords, listWords, percentWords, sentence } from '../../lib/formats'

/** What is said of devices: a camera, its strokes, the timing of the cue. */

export type CameraStroke = Schemas['CameraStrokeResult']
export type Timing = Schemas['TimingResult']

const states: Record<string, string> = {
  empty: 'sees no ball yet',
  settling: 'balls are being moved',
  still: 'everything lies still',
  moving: 'a stroke is under way',
}
export const stateWords = (c: Pick<Schemas['CameraResult'], 'isOn' | 'state'>) => (c.isOn ? (states[c.state] ?? c.state) : 'off')

/** "red first; the red into the top green-side pocket; the white stopped". */
export function cameraStrokeWords({ stroke }: Pick<CameraStroke, 'stroke'>): string {
  const met = stroke.first ? `${kindOf(stroke.first)} first` : 'met no ball'
  const gone = stroke.gone.map((g) => {
    const who = g.ball === 'white' ? 'the white' : g.ball.startsWith('red') ? 'a red' : theBall(g.ball)
    return g.pocket ? `${who} into the ${pocketName(g.pocket)} pocket` : `${who} went out of sight`
  })
  return sentence([met, ...gone].join('; '))
}

const doubts: Record<string, string> = {
  gap: 'nothing was seen for a moment',
  firstBall: 'which ball it met first is not certain',
  lostBall: 'a ball was lost from sight',
}
export const doubtWords = (names: readonly string[]) => sentence(listWords(names.map((n) => doubts[n] ?? n)))

const whys: Record<string, string> = {
  noSession: 'the session is gone',
  sessionOver: 'the session has ended',
  noFrame: 'the frame is gone',
  otherLayout: 'the balls did not lie as the step has them',
  run: 'a run is counted by hand',
}
/** What became of a stroke. */
export function becameWords({ became, isDropped, isCorrected }: Pick<CameraStroke, 'became' | 'isDropped' | 'isCorrected'>): string {
  if (isDropped) return 'dropped'
  const made =
    became.kind === 'attempt'
      ? 'counted in the session'
      : became.kind === 'shot'
        ? `shot ${(became.number ?? 0) + 1} of the frame`
        : became.why
          ? `not counted: ${whys[became.why] ?? became.why}`
          : 'kept here only'
  return isCorrected ? `${made}, put right` : made
}

const tallies: [string, (n: number) => string][] = [
  ['mistaken', (n) => `${countWords(n, 'sighting')} of one ball taken for another`],
  ['gaps', (n) => `${countWords(n, 'gap')} of more than two seconds`],
  ['lost', (n) => `${countWords(n, 'stroke')} lost`],
  ['jumpsBack', (n) => `its clock went back ${countWords(n, 'time')}`],
  ['repeated', (n) => `${countWords(n, 'stroke')} sent twice, counted once`],
  ['late', (n) => `${countWords(n, 'sighting')} too late`],
  ['leftOut', (n) => `${countWords(n, 'picture')} more than can be looked at`],
  ['hands', (n) => `balls moved by hand ${countWords(n, 'time')}`],
]
/** What a camera has had to put up with; nothing of what did not happen. */
export const tallyWords = (tally: Record<string, number>) =>
  tallies.filter(([name]) => (tally[name] ?? 0) > 0).map(([name, words]) => words(tally[name]))

// ---- The timing of the cue ----

const ms = (seconds: number) => `${Math.round(seconds * 1000)} ms`

/** The verdict, and never more than the readings hold. */
export function timingWords(t: Timing): string {
  if (!t.contact) return 'No contact is seen: the cue met no ball, or too softly.'
  const peak = t.peakBefore
  const within = peak ? `, to within ${ms(Math.max(0.001, 2 * peak.doubt))}` : ''
  switch (t.atContact) {
    case 'pastPeak':
      return `Past its peak ${ms(peak!.value)} before contact${within}: slowing through the ball.`
    case 'atPeak':
      return `At its peak when the tip met the ball${within}.`
    case 'rising':
      return peak
        ? `Still rising, ${ms(-peak.value)} short of its peak${within}: speeding up through the ball.`
        : 'Still rising when the tip met the ball: speeding up through it.'
    default:
      return 'The readings do not tell whether the speed still rose: take more of them before the contact.'
  }
}

/** How it was swung, part by part. */
export function phaseWords(t: Timing): string[] {
  const seconds = (p: Schemas['CuePhaseResult']) => `${figureWords(p.to - p.from, 2)} s`
  return [
    ...(t.backswing ? [`backswing ${lengthWords(t.backswing.length)} in ${seconds(t.backswing)}`] : []),
    ...(t.pause ? [`pause ${seconds(t.pause)}`] : []),
    ...(t.delivery ? [`delivery ${seconds(t.delivery)}`] : []),
    `${figureWords(t.speed.value, 2)} m/s at the ball`,
    ...(t.followThrough ? [`follow-through ${lengthWords(t.followThrough.length)}`] : []),
    ...(t.dips ? [`the speed falls back ${countWords(t.dips, 'time')} on the way`] : []),
  ]
}

const figures: Record<string, { name: string; words: (v: number) => string }> = {
  contactSpeed: { name: 'speed at the ball', words: (v) => `${figureWords(v, 2)} m/s` },
  peakBefore: { name: 'peak before contact', words: ms },
  backswing: { name: 'length of the backswing', words: (v) => lengthWords(v) },
  backswingTime: { name: 'time of the backswing', words: (v) => `${figureWords(v, 2)} s` },
  pause: { name: 'pause', words: (v) => `${figureWords(v, 2)} s` },
  delivery: { name: 'time of the delivery', words: (v) => `${figureWords(v, 2)} s` },
  followThrough: { name: 'follow-through', words: (v) => lengthWords(v) },
}
export const figureLine = (f: Schemas['TimingFigure']) =>
  `${figures[f.name]?.name ?? f.name}: ${figures[f.name]?.words(f.mean) ?? f.mean}, spread ${figures[f.name]?.words(f.spread) ?? f.spread}`

/** What scatters among several strokes, and what is alike. */
export function comparisonWords(found: readonly Schemas['TimingFigure'][]): string {
  const names = (of: readonly Schemas['TimingFigure'][]) => listWords(of.map((f) => figures[f.name]?.name ?? f.name))
  const [scatter, alike] = [found.filter((f) => f.scatters), found.filter((f) => !f.scatters)]
  return [
    scatter.length ? `What scatters: ${names(scatter)}.` : 'Nothing scatters more than one player’s strokes do.',
    alike.length && scatter.length ? `Alike: ${names(alike)}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
}

export const weekWords = (w: Schemas['CueWeek']) =>
  w.told
    ? `${percentWords(w.pastPeak / w.told)} slowing${w.peakBefore == null ? '' : `, peak ${w.peakBefore >= 0 ? `${ms(w.peakBefore)} before` : `${ms(-w.peakBefore)} after`} the contact on the average`}`
    : 'no contact told'
