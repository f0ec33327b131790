import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { problemWords } from '../../lib/problemWords'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { useGoal } from '../../position/goal'
import { usePlayer } from '../../position/player'
import { usePractise } from '../../position/practise'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'
import { useJudgements } from './judgements'
import { rungDemands, rungWords } from './fanWords'

export type Rung = Schemas['RungResult']
export type LadderKnob = NonNullable<Schemas['StrokeKnob']>
/** What is looked at: lines of a fan, the rungs of one knob, a table by pace, or a chart of a pot. */
export type WhatIf = 'lines' | 'ladder' | 'paces' | 'chart'
/** How long the hand rests before it is asked, ms. */
const rest = 180

/** The stroke that is set up with one knob turned: what each setting reaches. Asked for only while it is looked at. */
export const useWhatIf = defineStore('what-if', () => {
  const shot = useShot()
  const position = useDraft()
  const players = usePlayer()
  const view = useView()
  const goals = useGoal()
  const practise = usePractise()
  const judgements = useJudgements()

  const part = ref<WhatIf>('lines')
  const knob = ref<LadderKnob>('height')
  /** The cell of the chart that is pointed at. */
  const pointed = ref<Schemas['PotCellResult'] | null>(null)

  const isOpen = computed(() => view.step === 'shot' && !view.isCovered && view.shotView === 'what-if')
  watch([isOpen, part], () => (judgements.hidesFan = isOpen.value && part.value !== 'lines'), { immediate: true })
  const body = () => ({ content: shot.settled, player: players.player })
  const goal = () => (judgements.marksGoal ? goals.entry : null)
  const isAnswered = () => !!shot.shot
  const asks = <T extends object>(of: WhatIf, question: () => T | null) => ({
    question: () => (isOpen.value && part.value === of ? question() : null),
    isWanted: isAnswered,
    rest,
    keepAs: of,
  })

  const ladder = useAnswer({
    ...asks('ladder', () => ({ ...body(), knob: knob.value, goal: goal() })),
    ask: (asked, signal) => ask(client.POST('/api/shot/ladder', { body: asked, signal })),
  })
  const paces = useAnswer({
    ...asks('paces', () => ({ ...body(), range: { from: 2, to: 9, step: 1 }, goal: goal() })),
    ask: (asked, signal) => ask(client.POST('/api/shot/paces', { body: asked, signal })),
  })
  const chart = useAnswer({
    ...asks('chart', () => (position.stroke.pot ? body() : null)),
    ask: (asked, signal) => ask(client.POST('/api/shot/chart', { body: asked, signal })),
  })

  /** Sets the stroke up with a knob at a setting. */
  function turn(of: LadderKnob, to: number) {
    const rounded = (digits: number) => Math.round(to * 10 ** digits) / 10 ** digits
    if (of === 'aim') position.aimFreely(shot.aim + to)
    else position.setStroke({ [of]: rounded(of === 'elevation' ? 0 : of === 'pace' ? 2 : 3) })
    position.commit()
  }
  const middleOf = (r: Rung) => (r.from + r.to) / 2

  /** Rungs that can be practised: what is reached can be said as a task. */
  const rungs = computed(() => (ladder.answer.value ?? []).filter((r) => rungDemands(r).length > 0))
  /** Makes the ladder a routine, a step for each rung. */
  function practiseLadder() {
    const stroke = { ...position.stroke, aim: shot.aim }
    practise.ask({
      name: `${position.draft.name}: ladder`,
      balls: position.content.balls,
      stroke,
      stop: null,
      knob: knob.value === 'height' || knob.value === 'pace' ? knob.value : null,
      steps: rungs.value.map((r) => ({
        label: rungWords(r),
        stroke: {
          ...stroke,
          [knob.value]: knob.value === 'aim' ? shot.aim + middleOf(r) : Math.round(middleOf(r) * 1000) / 1000,
        },
        demands: rungDemands(r),
      })),
    })
  }

  const refusal = computed(() => {
    const problem = { lines: null, ladder: ladder.problem.value, paces: paces.problem.value, chart: chart.problem.value }[part.value]
    return problem ? problemWords(problem) : ''
  })

  return {
    part,
    knob,
    pointed,
    isOpen,
    ladder: ladder.answer,
    isLadderStale: ladder.isStale,
    paces: paces.answer,
    arePacesStale: paces.isStale,
    chart: computed(() => (position.stroke.pot ? chart.answer.value : null)),
    isChartStale: chart.isStale,
    rungs,
    refusal,
    turn,
    middleOf,
    practiseLadder,
  }
})
