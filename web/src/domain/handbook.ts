/** Paragraphs of the handbook: each figure on the page that wants one leads there by this name. */
export const topics = [
  'chance',
  'errors',
  'spread',
  'allowance',
  'fullness',
  'window',
  'whatIf',
  'map',
  'points',
  'win',
  'safety',
  'compare',
  'pace',
  'tip',
  'skill',
  'reach',
  'conditions',
  'lines',
  'guess',
  'success',
] as const
export type Topic = (typeof topics)[number]
