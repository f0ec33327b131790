<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '../../api/client'
import { router } from '../../app/router'
import { lookOf } from '../../domain/balls'
import { percentWords } from '../../domain/words'
import { useDraft } from '../../position/draft'
import { useRecords, type RecordedShot } from './records'

/** A frame written down shot by shot: one tap for the usual outcome. Made for a phone at the table side as well. */
const records = useRecords()
const position = useDraft()
/** Note where the white stopped: as it lies on the plan. */
const noteWhite = ref(false)
const state = computed(() => records.record?.story.state ?? null)
const story = computed(() => records.record?.story ?? null)
const title = ref('')
const first = ref('')
const second = ref('')
const file = ref<HTMLInputElement>()
const route = useRoute()
type View = 'shots' | 'breaks' | 'figures'
const tab = computed({
  get: () => (route.params.view || 'shots') as View,
  set: (view) => void router.replace({ name: 'frame', params: { id: route.params.id, view } }),
})
watch(
  () => [route.name, route.params.id],
  async ([name, id]) => {
    if (name !== 'frames' && name !== 'frame') return
    if (!(await records.show(id as string | undefined)) && route.params.id === id) await router.replace('/frames')
  },
  { immediate: true },
)
// Begun, imported, or brought back: it has an address of its own.
watch(
  () => records.record?.id,
  (id) => {
    if (id && route.name === 'frames') void router.push({ name: 'frame', params: { id } })
    if (!id && route.name === 'frame') void router.push('/frames')
  },
)
const fouling = ref(false)

const tags: { tag: Schemas['StrokeTag']; label: string }[] = [
  { tag: 'follow', label: 'follow' },
  { tag: 'screw', label: 'screw' },
  { tag: 'stun', label: 'stun' },
  { tag: 'side', label: 'side' },
  { tag: 'cannon', label: 'cannon' },
  { tag: 'rest', label: 'rest' },
]
const reasons: { why: Schemas['EndReason'] & string; label: string }[] = [
  { why: 'thick', label: 'thick' },
  { why: 'thin', label: 'thin' },
  { why: 'tooHard', label: 'too hard' },
  { why: 'tooSoft', label: 'too soft' },
  { why: 'unmeantSide', label: 'unmeant side' },
  { why: 'outOfPosition', label: 'out of position' },
  { why: 'nothingOn', label: 'nothing on' },
  { why: 'wrongShot', label: 'wrong shot' },
]
const chosenTags = ref<Schemas['StrokeTag'][]>([])
const chosenWhy = ref<string | null>(null)
type Then = 'next' | 'again' | 'replaced'
/** What follows a foul: the other player's choice. */
const thens: { then: Then; label: string }[] = [
  { then: 'next', label: 'the other plays' },
  { then: 'again', label: 'plays again from here' },
  { then: 'replaced', label: 'balls put back' },
]
const noFoul = { inOff: false, freeBall: false, missCalled: false, fullBall: true, redsLost: 0 }
const foul = ref({ ...noFoul })
const then = ref<Then>('next')
function enterFoul(penalty: number) {
  void enter({ kind: 'foul', penalty, ...foul.value, playAgain: then.value === 'again', replaced: then.value === 'replaced' && foul.value.missCalled })
}

const names = computed(() => (records.record ? [records.record.first, records.record.second] : ['', '']))
const onWords = computed(() => {
  const s = state.value
  if (!s) return ''
  if (s.awaitsLot) return 'Level: the black is on its spot again, the white in hand. Who plays first, by lot?'
  if (s.isOver) return s.winner >= 0 ? `${names.value[s.winner]} wins the frame.` : 'The frame is over.'
  const on = s.on === 'red' ? 'a red' : s.on === 'colour' ? 'a colour' : `the ${s.on}`
  return `${names.value[s.turn]} at the table, ${on} on${s.freeBall ? ' or a free ball' : ''}${s.inHand ? ', from the D' : ''}; break ${s.break}${s.isWarned ? '; warned: a third miss from here gives the frame' : ''}`
})
const needWords = computed(() => {
  const s = state.value
  if (!s || s.isOver) return ''
  const ahead = s.ahead > 0 ? `${s.ahead} ahead` : s.ahead < 0 ? `${-s.ahead} behind` : 'level'
  return `${s.pointsLeft} left, ${ahead}; ${s.toWin === 0 ? 'the other needs penalties' : s.snookersRequired ? `needs ${s.snookersRequired} snookers` : `${s.toWin} to win`}`
})

async function enter(shot: Partial<RecordedShot> & Pick<RecordedShot, 'kind'>) {
  const white = position.ball('white')
  await records.enter({ ...shot, ...(noteWhite.value && white ? { white: { x: white.x, y: white.y } } : {}), tags: [...chosenTags.value], ...(shot.kind !== 'pot' && chosenWhy.value ? { why: chosenWhy.value as Schemas['EndReason'] } : {}) })
  chosenTags.value = []
  chosenWhy.value = null
  fouling.value = false
  foul.value = { ...noFoul }
  then.value = 'next'
}
function toggleTag(tag: Schemas['StrokeTag']) {
  chosenTags.value = chosenTags.value.includes(tag) ? chosenTags.value.filter((t) => t !== tag) : [...chosenTags.value, tag]
}
function begin() {
  void records.start(title.value.trim() || 'Frame', first.value, second.value)
  title.value = ''
}
async function pick(e: Event) {
  const input = e.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (chosen) await records.bringIn(await chosen.text())
}

const kinds: Record<Schemas['ShotKind'], string> = { pot: 'potted', miss: 'missed', safety: 'safety', foul: 'foul', concede: 'conceded', award: 'frame awarded', lot: 'plays first, by lot' }
const reasonWords = (why: string | null | undefined) => reasons.find((r) => r.why === why)?.label ?? ''
function shotWords(s: Schemas['StoryShotResult']) {
  if (s.shot.kind === 'award' || s.shot.kind === 'lot') return `${names.value[s.shot.player ?? 0]}, ${kinds[s.shot.kind]}`
  const parts = [s.shot.kind === 'pot' ? (s.shot.potted ?? []).join(' and ') : kinds[s.shot.kind]]
  if (s.shot.kind === 'pot' && s.on !== 'colour' && s.shot.potted?.[0] !== s.on) parts.push('free ball')
  if (s.penalty) parts.push(`${s.penalty} away`)
  if (s.shot.inOff) parts.push('in-off')
  if (s.shot.missCalled) parts.push('and a miss')
  if (s.shot.playAgain) parts.push('plays again')
  if (s.shot.replaced) parts.push('balls put back')
  if (s.shot.why) parts.push(reasonWords(s.shot.why))
  if (s.shot.white) parts.push(`white ${(s.shot.white.x! * 1000).toFixed(0)} up, ${(s.shot.white.y! * 1000).toFixed(0)} across`)
  if (s.shot.tags?.length) parts.push(s.shot.tags.join(', '))
  return parts.join(', ')
}
const listed = computed(() => [...(story.value?.shots ?? [])].map((s, i) => ({ ...s, number: i + 1 })).reverse())
const breaks = computed(() => [...(story.value?.breaks ?? [])].reverse())
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <main class="place frames">
    <h1>{{ records.record ? records.record.title : 'Frames' }}</h1>
    <div v-if="records.record && state && story" class="record" data-testid="frame-record">
      <div class="score">
        <span v-for="(n, i) in names" :key="i" class="side" :class="{ turn: !state.isOver && state.turn === i }"
          ><span class="name">{{ n }}</span
          ><strong class="figure" :data-testid="`score-${i}`">{{ i === 0 ? state.first : state.second }}</strong></span
        >
      </div>
      <p class="on" data-testid="frame-on">{{ onWords }}</p>
      <p class="soft">{{ needWords }}</p>

      <p v-if="story.fault" class="fault" role="alert">The rest is not told: {{ story.fault.message }} Undo goes back to before it.</p>
      <div v-if="state.awaitsLot" class="row">
        <button v-for="(n, i) in names" :key="i" class="key tall" :disabled="records.busy" :data-testid="`lot-${i}`" @click="enter({ kind: 'lot', player: i })">{{ n }} plays first</button>
        <button class="key tall" :disabled="records.busy" data-testid="undo-shot" @click="records.undo()">Undo</button>
      </div>
      <template v-else-if="!state.isOver">
        <div class="pots" role="group" aria-label="Potted">
          <button v-for="b in state.mayPot" :key="b" class="ball" :style="{ background: lookOf(b === 'red' ? 'red-1' : b).fill, color: lookOf(b === 'red' ? 'red-1' : b).ink }" :disabled="records.busy" :aria-label="`Potted the ${b}`" :data-testid="`pot-${b}`" @click="enter({ kind: 'pot', potted: [b] })">
            {{ b === 'red' ? 1 : lookOf(b).mark }}
          </button>
          <button v-if="state.mayPot.includes('red') && state.reds > 1" class="key" :disabled="records.busy" @click="enter({ kind: 'pot', potted: ['red', 'red'] })">two reds</button>
        </div>
        <div class="row">
          <button class="key tall" :disabled="records.busy" data-testid="missed" @click="enter({ kind: 'miss' })">Missed</button>
          <button class="key tall" :disabled="records.busy" data-testid="safety" @click="enter({ kind: 'safety' })">Safety</button>
          <button class="key tall" :aria-expanded="fouling" data-testid="foul" @click="fouling = !fouling">Foul …</button>
          <button class="key tall" :disabled="records.busy || !story.shots.length" data-testid="undo-shot" @click="records.undo()">Undo</button>
        </div>
        <div v-if="fouling" class="foul">
          <div class="row">
            <label><input v-model="foul.inOff" type="checkbox" /> in-off</label>
            <label><input v-model="foul.freeBall" type="checkbox" /> free ball</label>
            <label v-if="state.missMayBeCalled || state.misses"><input v-model="foul.missCalled" type="checkbox" data-testid="miss-called" /> miss called</label>
            <label v-if="foul.missCalled"><input v-model="foul.fullBall" type="checkbox" /> with a ball open full</label>
            <label>reds gone <input v-model.number="foul.redsLost" class="choice small" type="number" min="0" :max="state.reds" /></label>
          </div>
          <div class="joined" role="group" aria-label="What follows">
            <template v-for="t in thens" :key="t.then">
              <button v-if="t.then !== 'replaced' || foul.missCalled" class="key" :aria-pressed="then === t.then" :data-testid="`then-${t.then}`" @click="then = t.then">{{ t.label }}</button>
            </template>
          </div>
          <div class="row">
            <button v-for="p in state.penalties" :key="p" class="key tall" :disabled="records.busy" :data-testid="`penalty-${p}`" @click="enterFoul(p)">{{ p }} away</button>
            <button class="key tall" :disabled="records.busy" @click="enter({ kind: 'concede' })">Concede</button>
            <button v-for="(n, i) in names" :key="i" class="key tall" :disabled="records.busy" @click="enter({ kind: 'award', player: i })">Award to {{ n }}</button>
          </div>
        </div>
        <div class="row small-row" role="group" aria-label="How the shot was played">
          <button v-for="t in tags" :key="t.tag" class="key" :aria-pressed="chosenTags.includes(t.tag)" :data-testid="`tag-${t.tag}`" @click="toggleTag(t.tag)">{{ t.label }}</button>
        </div>
        <div class="row small-row" role="group" aria-label="Why it was missed">
          <button v-for="r in reasons" :key="r.why" class="key" :aria-pressed="chosenWhy === r.why" @click="chosenWhy = chosenWhy === r.why ? null : r.why">{{ r.label }}</button>
        </div>
        <label class="hint"><input v-model="noteWhite" type="checkbox" data-testid="note-white" /> note the white where it lies on the plan</label>
        <p class="soft hint">Kind of stroke and reason first, if you want them noted; then one tap for what happened.</p>
      </template>
      <button v-else class="key" @click="records.undo()">Undo the last shot</button>

      <div class="row">
        <span class="joined" role="group" aria-label="Show">
          <button class="key" :aria-pressed="tab === 'shots'" @click="tab = 'shots'">Shots</button>
          <button class="key" :aria-pressed="tab === 'breaks'" data-testid="breaks" @click="tab = 'breaks'">Breaks</button>
          <button class="key" :aria-pressed="tab === 'figures'" data-testid="figures" @click="tab = 'figures'">Figures</button>
        </span>
        <button class="key" @click="records.exportAs('csv')">CSV</button>
        <button class="key" @click="records.exportAs('json')">JSON</button>
        <button class="key" data-testid="all-frames" @click="router.push('/frames')">All frames</button>
      </div>
      <p v-if="!story.shots.length" class="soft">Nothing is entered yet. Tap the ball that was potted, or Missed, Safety or Foul. With a frame open here, shots played on from a plan are written into it as well.</p>
      <ol v-else-if="tab === 'shots'" class="shots" data-testid="frame-shots">
        <li v-for="s in listed" :key="s.number">
          <span class="figure soft">{{ s.number }}</span
          ><span>{{ names[s.player] }}: {{ shotWords(s) }}</span
          ><span class="figure">{{ s.first }}–{{ s.second }}</span>
        </li>
      </ol>
      <ol v-else-if="tab === 'breaks'" class="shots" data-testid="frame-breaks">
        <li v-for="(b, i) in breaks" :key="i">
          <strong class="figure">{{ b.points }}</strong
          ><span>{{ names[b.player] }}, {{ b.pots }} pot{{ b.pots > 1 ? 's' : '' }}<template v-if="b.end">; ended by {{ kinds[b.end.kind] === 'missed' ? 'a miss' : `a ${kinds[b.end.kind]}` }} on {{ b.endOn === 'colour' ? 'a colour' : b.endOn === 'red' ? 'a red' : `the ${b.endOn}` }}{{ b.end.why ? `, ${reasonWords(b.end.why)}` : '' }}</template></span>
        </li>
        <li v-if="!breaks.length" class="soft">No break yet.</li>
      </ol>
      <table v-else class="figures" data-testid="frame-figures">
        <thead>
          <tr>
            <td></td>
            <th v-for="(n, i) in names" :key="i" scope="col">{{ n }}</th>
          </tr>
        </thead>
        <tbody>
          <tr><th scope="row">Points potted</th><td v-for="(p, i) in story.players" :key="i">{{ p.points }}</td></tr>
          <tr><th scope="row">Highest break</th><td v-for="(p, i) in story.players" :key="i">{{ p.highestBreak }}</td></tr>
          <tr><th scope="row">Pots made</th><td v-for="(p, i) in story.players" :key="i">{{ p.pots }} of {{ p.pots + p.misses }} ({{ percentWords(p.potShare) }})</td></tr>
          <tr><th scope="row">Safeties</th><td v-for="(p, i) in story.players" :key="i">{{ p.safeties }}</td></tr>
          <tr><th scope="row">Fouls, points away</th><td v-for="(p, i) in story.players" :key="i">{{ p.fouls }}, {{ p.pointsGivenAway }}</td></tr>
          <tr><th scope="row">Strokes</th><td v-for="(p, i) in story.players" :key="i"><span v-for="t in p.tags" :key="t.tag" class="line">{{ t.tag }} {{ t.potted }} of {{ t.played }}</span></td></tr>
          <tr><th scope="row">Where it ends</th><td v-for="(p, i) in story.players" :key="i"><span v-for="(e, k) in p.ends.slice(0, 4)" :key="k" class="line">{{ e.count }}× {{ kinds[e.kind] }}, {{ e.on }}{{ e.why ? `, ${reasonWords(e.why)}` : '' }}</span></td></tr>
        </tbody>
      </table>
    </div>

    <div v-else class="record">
      <form class="begin" @submit.prevent="begin">
        <input v-model="title" class="choice" maxlength="120" placeholder="Frame, such as “League, frame 3”" aria-label="Title of the frame" data-testid="frame-title" />
        <div class="row">
          <input v-model="first" class="choice" maxlength="60" placeholder="First player" aria-label="First player" data-testid="frame-first" />
          <input v-model="second" class="choice" maxlength="60" placeholder="Second player" aria-label="Second player" data-testid="frame-second" />
        </div>
        <div class="row">
          <button class="key chosen" :disabled="records.busy" data-testid="begin-frame">Begin a frame</button>
          <button type="button" class="key" @click="file?.click()">Import a file</button>
          <input ref="file" type="file" accept=".json,application/json" hidden data-testid="import-frame" @change="pick" />
        </div>
      </form>
      <ul v-if="records.items?.length" class="list" data-testid="frame-list">
        <li v-for="f in records.items" :key="f.id">
          <button class="open" @click="router.push({ name: 'frame', params: { id: f.id } })">
            <strong>{{ f.title }}</strong>
            <span>{{ f.first }} {{ f.firstScore }}–{{ f.secondScore }} {{ f.second }}</span>
            <span class="soft">{{ f.isOver ? 'over' : 'under way' }}, highest break {{ f.highestBreak }}, {{ when.format(new Date(f.updatedAt)) }}</span>
          </button>
          <button class="key" :aria-label="`Delete ${f.title}`" @click="records.remove(f)">Delete</button>
        </li>
      </ul>
      <p v-else-if="records.items" class="soft">No frame is written down yet. Begin one: each shot is a tap, and breaks, kinds of stroke and where it goes wrong are counted for you.</p>
    </div>
  </main>
</template>

<style scoped>
.frames {
  max-width: 620px;
}
.record {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
p {
  margin: 0;
}
.score {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.side {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  padding: 6px 10px;
  border: 1px solid var(--edge);
  border-radius: 8px;
  background: var(--panel-2);
  min-width: 0;
}
.side.turn {
  border-color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.side strong {
  font-size: 1.5rem;
}
.on {
  font-weight: 600;
}
.pots {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.ball {
  width: 50px;
  height: 50px;
  border-radius: 50%;
  border: 2px solid var(--edge);
  font: inherit;
  font-size: 1.15rem;
  font-weight: 700;
  cursor: pointer;
}
.ball:focus-visible,
.open:focus-visible {
  outline: 2px solid var(--accent);
  outline-offset: 2px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.row label {
  display: inline-flex;
  gap: 4px;
  align-items: center;
  min-height: 40px;
  font-size: 0.92rem;
}
.tall {
  min-height: 44px !important;
  flex: 1;
}
.small {
  width: 56px;
}
.small-row .key {
  padding: 0 9px;
  font-size: 0.88rem;
  min-height: 40px;
}
.hint {
  font-size: 0.86rem;
}
.foul {
  display: flex;
  flex-direction: column;
  gap: 6px;
  border: 1px solid var(--edge);
  border-radius: 8px;
  padding: 4px 8px 8px;
}
.shots,
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.shots li {
  display: grid;
  grid-template-columns: 2.2em 1fr auto;
  gap: 8px;
  padding: 3px 0;
  border-top: 1px solid var(--edge);
  font-size: 0.92rem;
}
.figures {
  border-collapse: collapse;
  font-size: 0.92rem;
  font-variant-numeric: tabular-nums;
}
.figures th {
  text-align: left;
  font-weight: 400;
  color: var(--text-soft);
}
.figures th,
.figures td {
  padding: 3px 8px 3px 0;
  vertical-align: top;
  border-top: 1px solid var(--edge);
}
.line {
  display: block;
}
.begin {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.begin .choice {
  flex: 1;
  min-width: 0;
  min-height: 40px;
}
.list li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-top: 1px solid var(--edge);
  padding: 8px 0;
}
.open {
  all: unset;
  display: flex;
  flex-direction: column;
  cursor: pointer;
  flex: 1;
}
</style>
