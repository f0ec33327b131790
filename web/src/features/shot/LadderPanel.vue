<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed } from 'vue'
import { sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useGoal } from '../../position/goal'
import { useShot } from '../../position/shot'
import LineButton from '../../ui/LineButton.vue'
import OneOf from '../../ui/OneOf.vue'
import { rungWords, settingsWords, widthWords } from './fanWords'
import { useJudgements } from './judgements'
import { useWhatIf, type LadderKnob, type Rung } from './whatIf'

/** One knob swept from end to end: what each setting reaches, how wide each window is, and where the stroke stands. */
const whatIf = useWhatIf()
const position = useDraft()
const goals = useGoal()
const answer = useShot()
const judgements = useJudgements()
const knobs: { value: LadderKnob; label: string; testId: string }[] = [
  { value: 'height', label: 'Height', testId: 'ladder-height' },
  { value: 'pace', label: 'Pace', testId: 'ladder-pace' },
  { value: 'side', label: 'Side', testId: 'ladder-side' },
  { value: 'aim', label: 'Aim', testId: 'ladder-aim' },
  { value: 'elevation', label: 'Butt', testId: 'ladder-butt' },
]
const at = computed(() => {
  const { height, pace, side, elevation } = position.stroke
  return { height, pace, side, aim: 0, elevation: elevation ?? answer.shot?.strike.elevation ?? 0 }[whatIf.knob]
})
/** A rung narrower than this nobody can set: a ball just grazed, between two others. A two hundredth of the sweep. */
const leastWidth = computed(() => {
  const list = whatIf.ladder ?? []
  return list.length ? (list[list.length - 1].to - list[0].from) / 200 : 0
})
/** Neighbours that are called the same are one. */
const merged = computed(() => {
  const list: Rung[] = []
  for (const r of whatIf.ladder ?? []) {
    const last = list[list.length - 1]
    if (last && rungWords(last) === rungWords(r)) list[list.length - 1] = { ...last, to: r.to }
    else list.push(r)
  }
  return list.filter((r) => list.length < 3 || r.to - r.from >= leastWidth.value)
})
const rungs = computed(() => {
  const list = merged.value
  const [least, most] = [list[0]?.from ?? 0, list[list.length - 1]?.to ?? 1]
  const share = (v: number) => ((v - least) / Math.max(1e-9, most - least)) * 100
  return list.map((r, i) => ({
    rung: r,
    key: i,
    left: share(r.from),
    width: Math.max(0.8, share(r.to) - share(r.from)),
    words: rungWords(r),
    isHere: at.value >= r.from - 1e-9 && at.value <= r.to + 1e-9,
    isBad: !r.what || r.what.potted === false || !!r.what.inOff,
  }))
})
const use = (r: Rung) => whatIf.turn(whatIf.knob, whatIf.middleOf(r))
</script>

<template>
  <OneOf v-model="whatIf.knob" :options="knobs" label="Which knob is swept" />
  <div class="row">
    <span class="soft">{{ position.stroke.pot ? 'The pot stays, the aim follows.' : 'The aim stays.' }} Highest setting last.</span>
    <ElCheckbox v-if="goals.entry" v-model="judgements.marksGoal">mark those that do what Put it there asks</ElCheckbox>
  </div>
  <p v-if="!whatIf.ladder && !whatIf.refusal" class="soft" role="status">Sweeping …</p>
  <ol v-else class="rungs" :class="{ stale: whatIf.isLadderStale }" aria-label="What each setting reaches" data-testid="ladder">
    <li v-for="r in rungs" :key="r.key" :class="{ here: r.isHere, bad: r.isBad }" :aria-current="r.isHere || undefined">
      <LineButton title="Set it to the middle of this rung" @click="use(r.rung)">{{ sentence(r.words) }}</LineButton>
      <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
        <rect x="0" y="4" width="100" height="2" class="track" />
        <rect :x="r.left" y="1" :width="r.width" height="8" class="range" />
      </svg>
      <span class="figure" :title="`${widthWords(whatIf.knob, r.rung)} wide`">{{ settingsWords(whatIf.knob, r.rung) }}</span>
    </li>
  </ol>
  <div v-if="whatIf.rungs.length" class="row">
    <ElButton size="small" data-testid="practise-ladder" @click="whatIf.practiseLadder()"
      >Practise these {{ whatIf.rungs.length }} rungs</ElButton
    >
  </div>
</template>

<style scoped>
.rungs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--space-1);
}
li {
  display: grid;
  grid-template-columns: minmax(9em, 1.2fr) minmax(70px, 1fr) 8.5em;
  gap: var(--space-3);
  align-items: center;
}
.here {
  box-shadow: inset 3px 0 0 var(--accent);
  padding-left: var(--space-2);
}
.bad {
  color: var(--text-soft);
}
svg {
  width: 100%;
  height: 12px;
}
.track {
  fill: var(--edge);
}
.range {
  fill: var(--accent);
}
.bad .range {
  fill: var(--danger);
  opacity: 0.7;
}
.figure {
  text-align: right;
}
</style>
