/** What the conditions are called on the page, by their names in the API. */
export const conditionNames: Record<string, string> = {
  slidingFriction: 'Sliding friction of the cloth',
  rollingFriction: 'Rolling friction of the cloth',
  spinDeceleration: 'Side dies on the cloth by',
  gravity: 'Gravity',
  bedRestitution: 'Ball on slate restitution',
  cushionRestitution: 'Cushion restitution',
  cushionFriction: 'Cushion friction',
  noseSine: 'Nose height, as the sine of its angle',
  ballRestitution: 'Ball on ball restitution',
  ballFrictionFloor: 'Ball friction, fast',
  ballFrictionRange: 'Ball friction, more when slow',
  ballFrictionDecay: 'Ball friction, falls off by',
  cueMass: 'Cue mass',
  tipRestitution: 'Tip restitution',
  endMassRatio: 'Ball to cue-end mass (more is less squirt)',
  cornerGap: 'Corner gap between the jaws',
  cornerJawRadius: 'Corner jaw radius',
  cornerDropSetback: 'Corner drop, how far back',
  cornerDropRadius: 'Corner drop radius',
  middleGap: 'Middle gap between the jaws',
  middleJawRadius: 'Middle jaw radius',
  middleDropSetback: 'Middle drop, how far back',
  middleDropRadius: 'Middle drop radius',
}

export const groupNames: Record<string, string> = { cloth: 'Cloth', cushions: 'Cushions', balls: 'Balls', cue: 'Cue', pockets: 'Pockets' }

export const presetNames: Record<string, string> = {
  match: 'Match table',
  quickMatch: 'Quick match cloth',
  slowClub: 'Slow club cloth',
  tightPockets: 'Tight pockets',
  generousPockets: 'Generous pockets',
  wornBalls: 'Worn balls',
}
