import type { Content, Schemas } from '../../api/client'
import { copy, strokeOf } from '../../domain/strokes'
import { sentence } from '../../lib/formats'
import type { GlanceItem } from '../../position/glance'
import { ruleWords } from './words'

type Step = Schemas['Step']

/**
 * The steps of a routine as glances, with what counts as done.
 * @param steps As they are played, on the side that is played; those without a stroke are left out.
 * @param at The step to begin with.
 * @param conditions What their strokes are worked out on.
 */
export function stepGlances(name: string, steps: readonly Step[], at: number, conditions: Content['conditions']) {
  const withStroke = steps.flatMap((step, i) => (step.stroke ? [{ step, i }] : []))
  const items: GlanceItem[] = withStroke.map(({ step, i }) => ({
    title: steps.length > 1 ? `${name}, ${step.label || i + 1}` : name,
    content: { balls: copy(step.balls), stroke: strokeOf(step.stroke), conditions: copy(conditions) },
    note: `${sentence(ruleWords(step))}.`,
  }))
  const first = withStroke.findIndex(({ i }) => i >= at)
  return { items, first: Math.max(0, first) }
}
