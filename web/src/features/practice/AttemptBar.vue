<script setup lang="ts">
import { ElButton, ElCheckTag, ElInput } from 'element-plus'
import { computed, ref } from 'vue'
import { countWords, sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import BallDot from '../../ui/BallDot.vue'
import OneOf from '../../ui/OneOf.vue'
import { useCounting } from './counting'
import { useSession } from './session'
import { kindNames, ofWords, reasonNames, reasons, strokeWords } from './words'

/** Counting by the thumb: done or not, why not, what the body did; of a run, its balls. */
const counting = useCounting()
const sessions = useSession()
const position = useDraft()
const isBodyOpen = ref(false)
const word = ref('')
const isEnd = computed(() => counting.last === sessions.attempts[sessions.attempts.length - 1]?.id)
const meant = computed(() => {
  const stroke = counting.lastAttempt && counting.lastAttempt.score == null && counting.meantOf(counting.lastAttempt)
  return stroke ? strokeWords(stroke) : ''
})
const number = computed(() => counting.listed.findIndex((a) => a.id === counting.last) + 1)
const which = computed(() => (isEnd.value || !number.value ? 'the last one' : `attempt ${number.value}`))
const hint = computed(() => {
  if (counting.isPlacing) return `Touch the plan where ${which.value} stopped.`
  if (counting.white || counting.ball) return 'Marked. Now say whether it worked.'
  if (counting.wantsWhite) return 'Touch the plan where the white stopped, then say how it went.'
  return 'Say how it went; touch the plan where the white stopped, if it matters.'
})
const colours = computed(() => position.reference!.spots.map((s) => ({ ball: s.ball, points: position.reference!.values[s.ball] })))
const pointing = [
  { value: 'white', label: 'the white' },
  { value: 'ball', label: 'the ball' },
] as const
function add() {
  const added = counting.addWord(word.value)
  if (added) counting.body(added)
  word.value = ''
}
</script>

<template>
  <div class="attempt-bar" data-testid="attempt-bar">
    <template v-if="counting.isRun">
      <p class="run" aria-live="polite">
        <strong data-testid="run-score">{{ counting.run.score }}</strong> {{ counting.run.score === 1 ? 'point' : 'points' }},
        {{ countWords(counting.run.balls, 'ball') }}
      </p>
      <div class="balls">
        <ElButton class="ball-button" data-testid="run-red" @click="counting.pot(1)"><BallDot ball="red-1" />&nbsp;1</ElButton>
        <ElButton v-for="c in colours" :key="c.ball" class="ball-button" :data-testid="`run-${c.ball}`" @click="counting.pot(c.points)"
          ><BallDot :ball="c.ball" />&nbsp;{{ c.points }}</ElButton
        >
      </div>
      <div class="chips">
        <ElCheckTag
          v-for="(name, k) in kindNames"
          :key="k"
          :checked="!!counting.run.kinds[k]"
          type="info"
          @change="counting.kind(String(k))"
          >{{ name }}{{ counting.run.kinds[k] ? ` ${counting.run.kinds[k]}` : '' }}</ElCheckTag
        >
      </div>
      <div class="row again" role="group" aria-label="The shot put back and played again">
        <span>Put back, again</span>
        <ElButton size="small" data-testid="again-done" @click="counting.again(true)">worked</ElButton>
        <ElButton size="small" data-testid="again-not" @click="counting.again(false)">did not</ElButton>
        <span v-if="counting.repeats.of" aria-live="polite"
          ><strong data-testid="repeats">{{ ofWords(counting.repeats) }}</strong>
          <ElButton text size="small" @click="counting.clearRepeats()">Clear</ElButton></span
        >
      </div>
      <div class="big">
        <ElButton type="primary" class="done" data-testid="run-over" @click="counting.say(true)">The run is over</ElButton>
        <ElButton class="undo" @click="counting.clear()">Start it again</ElButton>
      </div>
    </template>
    <template v-else>
      <p class="hint soft">{{ hint }}</p>
      <OneOf v-if="counting.wantsBall" v-model="counting.pointsAt" :options="pointing" label="What a touch marks" />
      <div class="big">
        <ElButton type="primary" class="done" data-testid="done" @click="counting.say(true)">Done</ElButton>
        <ElButton class="not" data-testid="not" @click="counting.say(false)">Not</ElButton>
      </div>
    </template>
    <div v-if="counting.lastAttempt" class="last">
      <span class="what" data-testid="last-attempt"
        >{{ sentence(which) }}:
        <strong>{{
          counting.lastAttempt.score != null
            ? countWords(counting.lastAttempt.score, 'point')
            : counting.lastAttempt.done
              ? 'done'
              : 'not done'
        }}</strong>
        <template v-if="counting.lastAttempt.said && !counting.lastAttempt.done"> by the rule</template>
        <span v-if="meant" class="meant soft">{{ meant }}</span>
      </span>
      <template v-if="counting.lastAttempt.score == null">
        <ElButton size="small" data-testid="say-otherwise" @click="counting.sayOtherwise()">{{
          counting.lastAttempt.said ? 'Was not' : 'Was done'
        }}</ElButton>
        <ElButton
          size="small"
          data-testid="place-attempt"
          :type="counting.isPlacing ? 'primary' : undefined"
          @click="counting.isPlacing ? counting.clear() : counting.startPlacing()"
          >Its place</ElButton
        >
      </template>
      <ElButton size="small" data-testid="undo-attempt" @click="counting.undo()">Take back</ElButton>
    </div>
    <ElButton v-else-if="sessions.attempts.length" size="small" class="alone" data-testid="undo-attempt" @click="counting.undo()"
      >Undo last attempt</ElButton
    >
    <div v-if="counting.lastAttempt && !counting.lastAttempt.done" class="chips" role="group" aria-label="Why not">
      <ElCheckTag
        v-for="r in reasons"
        :key="r"
        :checked="counting.lastAttempt.reasons.includes(r)"
        :data-testid="`reason-${r}`"
        @change="counting.reason(r)"
        >{{ reasonNames[r] }}</ElCheckTag
      >
    </div>
    <div v-if="counting.lastAttempt" class="chips" role="group" aria-label="What the body did">
      <ElCheckTag
        v-for="w in counting.words"
        :key="w"
        type="info"
        :checked="counting.lastAttempt.body.includes(w)"
        @change="counting.body(w)"
        >{{ w }}</ElCheckTag
      >
      <ElButton v-if="!isBodyOpen" size="small" @click="isBodyOpen = true">Own word …</ElButton>
      <ElInput
        v-else
        v-model="word"
        size="small"
        class="word"
        :maxlength="40"
        placeholder="chin down"
        aria-label="Your own word for the body"
        @keydown.enter="add"
        @blur="add"
      />
    </div>
  </div>
</template>

<style scoped>
.attempt-bar {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
}
.hint,
.run {
  margin: 0;
}
.run {
  font-size: var(--type-4);
}
.big {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: var(--space-3);
}
.big .el-button {
  height: 84px;
  font-size: var(--type-5);
  margin: 0;
}
.big .not {
  border-color: var(--danger);
}
.balls {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: var(--space-3);
}
.balls .el-button {
  height: 56px;
  margin: 0;
  font-size: var(--type-4);
}
.big .undo {
  font-size: var(--type-3);
}
.last {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-2);
}
.last .what {
  flex: 1;
  min-width: 130px;
}
.meant {
  display: block;
  font-size: var(--type-2);
}
.last .el-button + .el-button {
  margin: 0;
}
.alone {
  align-self: flex-end;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2);
}
.chips .el-check-tag {
  padding: var(--space-4) var(--space-4);
  min-height: 40px;
}
.word {
  width: 130px;
}
</style>
