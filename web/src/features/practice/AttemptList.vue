<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, reactive, ref, watch } from 'vue'
import { ask, client } from '../../api/client'
import { diagnosisWords } from '../../domain/diagnosis'
import { countWords, listWords } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { useCounting } from './counting'
import { useSession, type Attempt } from './session'
import LineButton from '../../ui/LineButton.vue'
import { ofWords, reasonName, repeatsOf, strokeWords } from './words'

/** Attempts in order, the latest first: what was said of each, and a coach's word on it. */
const props = defineProps<{
  attempts: Attempt[]
  /** What the steps are called, where attempts at several are listed. */
  labels: readonly string[]
}>()
const sessions = useSession()
const counting = useCounting()
const shown = 12
const isAll = ref(false)
const numbered = computed(() => props.attempts.map((a, i) => ({ a, number: i + 1 })).reverse())
const list = computed(() => (isAll.value ? numbered.value : numbered.value.slice(0, shown)))
const { attempt } = useAttempt()
/** Of an attempt that says where the white stopped: what went wrong, once it is asked for. */
const why = reactive(new Map<string, string>())
const mayAsk = (a: Attempt) => !!a.white && !a.done && a.score == null && !sessions.waitingIds.has(a.id)
const askWhy = (a: Attempt) =>
  attempt(async () => {
    const found = await ask(client.GET('/api/learn/attempts/{id}', { params: { path: { id: a.id } } }))
    why.set(a.id, diagnosisWords(found))
  }, 'Could not work out what went wrong')
// Corrected, it is asked anew.
watch(
  () => props.attempts.map((a) => a.revision + a.id).join(),
  () => why.clear(),
)
const writing = ref('')
const text = ref('')
function write(a: Attempt) {
  writing.value = a.id
  text.value = a.note
}
function keep() {
  if (!writing.value) return
  const before = props.attempts.find((a) => a.id === writing.value)?.note ?? ''
  if (text.value.trim() !== before) sessions.note(writing.value, text.value.trim().slice(0, 300))
  writing.value = ''
}
const said = (a: Attempt) =>
  [
    a.score != null ? countWords(a.score, 'point') : a.done ? 'done' : 'not',
    repeatsOf(a.kinds ?? {}).of ? `put back and played again ${ofWords(repeatsOf(a.kinds ?? {}))}` : '',
    listWords([...a.reasons.map(reasonName), ...a.body]),
    props.labels.length > 1 ? props.labels[a.step] : '',
    a.stroke ? strokeWords(a.stroke) : '',
    a.group ?? '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <ul class="attempts" data-testid="attempts">
    <li v-for="{ a, number } in list" :key="a.id" :class="{ done: a.done, chosen: a.id === counting.last }">
      <span class="number">{{ number }}</span>
      <span class="what"
        ><LineButton :aria-label="`Correct attempt ${number}: ${said(a)}`" data-testid="pick-attempt" @click="counting.pick(a.id)">{{
          said(a)
        }}</LineButton
        ><span v-if="sessions.waitingIds.has(a.id)" class="soft">
          · {{ sessions.judgedWhenSent.has(a.id) ? 'not sent, judged when sent' : 'not sent' }}</span
        >
        <span v-if="why.get(a.id)" class="why" role="status" data-testid="why-attempt">{{ why.get(a.id) }}</span>
        <em v-if="a.note && writing !== a.id" data-testid="coach-note">{{ a.note }}</em>
        <ElInput
          v-if="writing === a.id"
          v-model="text"
          :maxlength="300"
          size="small"
          aria-label="A word on this attempt"
          data-testid="note-text"
          @keydown.enter="keep"
          @keydown.esc.stop="writing = ''"
          @blur="keep"
        />
      </span>
      <ElButton
        v-if="mayAsk(a) && !why.has(a.id)"
        size="small"
        text
        :aria-label="`What went wrong in attempt ${number}`"
        data-testid="ask-why"
        @click="askWhy(a)"
        >Why?</ElButton
      >
      <ElButton
        v-if="writing !== a.id"
        size="small"
        text
        :aria-label="`Write a word on attempt ${number}`"
        data-testid="write-note"
        @click="write(a)"
        >{{ a.note ? 'Change' : 'Word' }}</ElButton
      >
    </li>
    <li v-if="!isAll && numbered.length > shown">
      <ElButton size="small" @click="isAll = true">All {{ numbered.length }}</ElButton>
    </li>
  </ul>
</template>

<style scoped>
.attempts {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: var(--space-3);
  align-items: baseline;
  border-top: 1px solid var(--edge);
  padding: var(--space-1) 0;
}
.number {
  min-width: 1.8em;
  text-align: right;
  font-variant-numeric: tabular-nums;
  color: var(--text-soft);
}
.what {
  flex: 1;
  min-width: 0;
}
.chosen .number {
  color: var(--accent);
  font-weight: 650;
}
.why {
  display: block;
  color: var(--text-soft);
}
.what em {
  display: block;
  color: var(--accent);
  font-style: normal;
}
</style>
