<script setup lang="ts">
import { computed, ref } from 'vue'
import { usePlayback } from '../picture/playback'
import { useWorkspace } from '../workspace/workspace'
import { numberedEvents } from '../picture/events'
import { useGoal } from '../shots/goal'
import { useJudgements } from '../shots/judgements'
import { useWays } from '../shots/ways'
import { useMap } from '../planning/map'
import { usePlans } from '../planning/plans'
import { useDecide } from '../safety/decide'
import { useDrawing, viewBoxOf } from './bed'
import { placeLabels, type Label } from './labels'
import { isRed, lookOf, nameOf, pocketName } from './balls'

/** What lies and happens on the table, to scale in millimetres, baulk at the left and the yellow's side below; TableBed lies beneath. */
const workspace = useWorkspace()
const playback = usePlayback()
const judgements = useJudgements()
const goals = useGoal()
const ways = useWays()
const plans = usePlans()
const map = useMap()
const decide = useDecide()
const { reference, length, width, radius, sx, sy, points } = useDrawing()
const pockets = computed(() => workspace.table?.pockets ?? [])

/** Looking at a shot of a plan, the desk's own shot is out of the way unless it is the same. */
const ahead = computed(() => plans.ahead)
const simulation = computed(() => (isDeskHidden.value ? null : (workspace.shot?.simulation ?? null)))
const cut = computed(() => (isDeskHidden.value ? null : (workspace.shot?.cut ?? null)))
const white = computed(() => (ahead.value ? undefined : workspace.ball('white')))
const stroke = computed(() => workspace.stroke)

const whitePath = computed(() => {
  const all = simulation.value?.paths.find((p) => p.id === 'white')?.points ?? []
  const hit = simulation.value?.events.find((e) => e.kind === 'ball' && e.ball === 'white') ?? simulation.value?.events.find((e) => e.kind === 'ball' && e.other === 'white')
  const split = hit ? all.findIndex((p) => p.time >= hit.time - 1e-9) : -1
  return split < 0 ? { before: all, after: [] } : { before: all.slice(0, split + 1), after: all.slice(split) }
})
/** Of an opened pack only who goes farther than can be seen beside the ball itself: it stirs many. */
const otherPaths = computed(() => {
  const moved = (simulation.value?.paths ?? []).filter((p) => p.id !== 'white' && travelled(p.points) > 0.01)
  return moved.length <= 6 ? moved : moved.filter((p) => travelled(p.points) > reference.value.ballRadius)
})
const labelled = computed(() => (otherPaths.value.length <= 4 ? otherPaths.value : []))

function travelled(list: { x: number; y: number }[]) {
  let sum = 0
  for (let i = 1; i < list.length; i++) sum += Math.hypot(list[i].x - list[i - 1].x, list[i].y - list[i - 1].y)
  return sum
}

const finals = computed(() => (simulation.value?.finals ?? []).filter((f) => !f.pocket && (f.id === 'white' ? simulation.value!.paths.some((p) => p.id === 'white') : otherPaths.value.some((p) => p.id === f.id))))
const finalWhite = computed(() => simulation.value?.finals.find((f) => f.id === 'white') ?? null)
/** On the plan only what the white does, and the pots, and of several close together the first: the rest is in the list. */
const events = computed(() => {
  const shown: ReturnType<typeof numberedEvents> = []
  for (const e of simulation.value ? numberedEvents(simulation.value) : []) {
    if (e.event.ball !== 'white' && e.event.other !== 'white' && e.event.kind !== 'pot') continue
    if (e.event.kind !== 'pot' && shown.some((s) => Math.hypot(s.event.x - e.event.x, s.event.y - e.event.y) < 0.06)) continue
    shown.push(e)
  }
  return shown.slice(0, 12)
})

/** What the drawing calls its lines and marks, each put where it covers least. */
const labels = computed(() => {
  const list: Label[] = []
  const add = (key: string, kind: string, text: string, at: { x: number; y: number }, size = 56) => list.push({ key, kind, text, x: sx(at.x), y: sy(at.y), size })
  const moved = (id: string) => simulation.value?.paths.some((p) => p.id === id)
  if (finalWhite.value && !finalWhite.value.pocket && moved('white')) add('white', 'strong', 'white stops', finalWhite.value)
  const leg = cut.value?.legs[cut.value.legs.length - 1]
  if (leg) add('pot', 'brass', 'potting line', { x: (leg.fromX + leg.toX) / 2, y: (leg.fromY + leg.toY) / 2 })
  for (const p of labelled.value) {
    const final = finals.value.find((f) => f.id === p.id)
    if (final) add(p.id, '', `${nameOf(p.id)} stops`, final)
  }
  for (const f of judgements.fan) add(`fan${f.key}`, 'fan', fanWords(f.key) + (f.potted ? '' : ' (missed)'), f.points[f.points.length - 1], 50)
  for (const w of shownWays.value) {
    add(`way${w.key}`, 'fan', w.label, w.end, 54)
    if (w.mirror.length) add(`mirror${w.key}`, 'brass', shownWays.value.length > 1 ? `${w.label} as in a mirror` : 'as in a mirror', w.mirror[1], 46)
  }
  if (goal.value) add('goal', 'brass', 'stop here', { x: goal.value.x, y: goal.value.y + goals.goal.radius }, 50)
  for (const [key, words, outlines] of [['thick', 'missed thick', judgements.spread?.thickLeaves], ['thin', 'missed thin', judgements.spread?.thinLeaves]] as const) {
    const widest = [...(outlines ?? [])].sort((a, b) => b.length - a.length)[0]
    if (widest) add(key, 'missed', words, widest[0], 46)
  }
  if (planned.value) {
    const { path, choice, area } = planned.value
    if (!isPlannedSetUp.value) add('planned', 'fan', `shot ${plans.shot + 1} ends`, path[path.length - 1], 50)
    if (area.length && choice.next.ball) add('area', 'brass', isRed(choice.next.ball) ? 'for a red' : `for the ${nameOf(choice.next.ball)}`, area.reduce((a, b) => (b.y > a.y ? b : a)), 50)
  }
  const spreads = safety.value ? ([['safe-white', 'white', safety.value.whiteSpread], ['safe-ball', nameOf(safety.value.ball), safety.value.ballSpread]] as const) : []
  for (const [key, words, outlines] of spreads) {
    const widest = [...outlines].sort((a, b) => b.length - a.length)[0]
    if (widest) add(key, 'fan', `${words} mostly stops here`, widest.reduce((a, b) => (b.y > a.y ? b : a)), 46)
  }
  if (escape.value?.mirror) {
    const [, first] = escape.value.mirror.points
    add('mirror', 'brass', 'as in a mirror', first, 46)
    if (escape.value.contact) add('contact', 'fan', `${(escape.value.fromPocket! * 1000).toFixed(0)} mm`, escape.value.contact, 46)
  }
  for (const l of rivalLines.value.filter((l) => l.chance > 0).slice(0, 4)) add(`rival${l.ball}${l.pocket}`, 'missed', `${(l.chance * 100).toFixed(0)} %`, { x: (l.fromX + l.toX) / 2, y: (l.fromY + l.toY) / 2 }, 46)
  if (map.map?.best) add('best', 'brass', 'best place', map.map.best, 50)
  for (const e of events.value) add(`event${e.number}`, 'number', String(e.number), e.event, 46)
  const obstacles = [
    ...workspace.content.balls.map((b) => ({ x: sx(b.x), y: sy(b.y) })),
    ...[...whitePath.value.before, ...whitePath.value.after].flatMap((p, i, all) => between(p, all[i + 1])),
    ...(cut.value?.legs ?? []).flatMap((l) => between({ x: l.fromX, y: l.fromY }, { x: l.toX, y: l.toY })),
  ]
  return placeLabels(list, obstacles, { left: 0, top: 0, right: length.value, bottom: width.value })
})

/** What a line of the fan is called: a route by its name, else what is changed. */
function fanWords(key: string) {
  const what = { routes: '', paces: 'pace ', heights: 'height ', sides: 'side ' }[judgements.fanKind ?? 'routes']
  return what + key.replace('-', '−')
}
/** Ways that are pointed at, or laid beside one another. */
const shownWays = computed(() => {
  if (!ways.isOpen) return []
  const shown = [
    { way: ways.a, label: 'A', key: 'a' },
    { way: ways.b, label: 'B', key: 'b' },
  ]
  const pointed = ways.byKey(ways.pointed)
  if (pointed && pointed !== ways.a && pointed !== ways.b) shown.push({ way: pointed, label: 'this way', key: 'pointed' })
  return shown.flatMap(({ way, label, key }) => (way ? [{ key, label, mirror: way.mirror, points: way.points, end: way.points[way.points.length - 1] }] : []))
})
/** The shot of the plan that is looked at. */
const planned = computed(() => plans.shown)
const plannedPot = computed(() => {
  const pot = planned.value?.choice.stroke.pot
  const ball = planned.value?.content.balls.find((b) => b.id === pot?.ball)
  const pocket = pockets.value.find((p) => p.name === pot?.pocket)
  return ball && pocket ? { x1: ball.x, y1: ball.y, x2: pocket.drop.x, y2: pocket.drop.y } : null
})
/** Then the desk draws it already, with all that happens. */
const isPlannedSetUp = computed(() => {
  const [a, b] = [planned.value?.choice.stroke, workspace.stroke]
  return !ahead.value && !!a && !b.free && a.pot?.ball === b.pot?.ball && a.pot?.pocket === b.pot?.pocket && a.height === b.height && a.side === b.side && a.pace === b.pace
})
/** What is chosen of the safeties and escapes, and the other player's ways after the stroke that is set up. */
const safety = computed(() => (decide.shown?.kind === 'safety' ? decide.shown.safety : null))
const escape = computed(() => (decide.shown?.kind === 'escape' ? decide.shown.escape : null))
const rivalLines = computed(() => (decide.view?.rivalAtTable ? decide.view.lines : []))
const isDeskHidden = computed(() => !!planned.value && !isPlannedSetUp.value)
const goal = computed(() => (ways.isOpen && goals.goal.kind === 'stop' ? goals.goal.place : null))
const fanDashes = ['18 12', '40 10 8 10', '6 10', '60 16', '26 8 4 8']
const outlinePath = (outlines: { x: number; y: number }[][]) => outlines.map((o) => `M ${points(o)} Z`).join(' ')

/** Points along a line, close enough that no label slips between them. */
function between(a: { x: number; y: number }, b?: { x: number; y: number }) {
  const steps = b ? Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / 0.04) : 1
  return Array.from({ length: steps }, (_, i) => ({ x: sx(a.x + (i / steps) * ((b ?? a).x - a.x)), y: sy(a.y + (i / steps) * ((b ?? a).y - a.y)) }))
}

// ---- The aim: a line ahead of the white with a handle to drag ----
const aimHandle = computed(() => {
  if (!white.value) return null
  const a = (workspace.aim * Math.PI) / 180
  const [dx, dy] = [Math.cos(a), Math.sin(a)]
  // As far as 0.45 m, less if the cushion comes first.
  const room = (p: number, d: number, max: number) => (d > 0 ? (max - p) / d : d < 0 ? -p / d : Infinity)
  const far = Math.max(0.09, Math.min(0.45, room(white.value.x, dx, reference.value.length), room(white.value.y, dy, reference.value.width)))
  return { x: white.value.x + far * dx, y: white.value.y + far * dy }
})

// ---- Hands ----
const svg = ref<SVGSVGElement>()
let gesture: { kind: 'ball' | 'aim' | 'place' | 'rim'; id: string; moved: boolean; dx: number; dy: number } | null = null

function toTable(e: PointerEvent) {
  const matrix = svg.value!.getScreenCTM()!
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse())
  return { x: p.x / 1000, y: (width.value - p.y) / 1000, perPixel: 1 / matrix.a / 1000 }
}

function down(e: PointerEvent) {
  if (e.button !== 0 || ahead.value) return
  const at = toTable(e)
  const reach = (e.pointerType === 'touch' ? 24 : 14) * at.perPixel
  const near = <T extends { x: number; y: number }>(list: T[]) =>
    list.map((t) => ({ t, d: Math.hypot(t.x - at.x, t.y - at.y) })).sort((a, b) => a.d - b.d)[0]
  const ball = near(workspace.content.balls)
  const handle = aimHandle.value && Math.hypot(aimHandle.value.x - at.x, aimHandle.value.y - at.y)
  if (ball && ball.d < Math.max(reach, reference.value.ballRadius) && !(handle !== null && handle < ball.d)) {
    playback.rewind()
    workspace.selected = ball.t.id
    gesture = { kind: 'ball', id: ball.t.id, moved: false, dx: ball.t.x - at.x, dy: ball.t.y - at.y }
  } else if (handle !== null && handle < reach * 1.4) {
    gesture = { kind: 'aim', id: '', moved: false, dx: 0, dy: 0 }
  } else if (goal.value && Math.abs(Math.hypot(goal.value.x - at.x, goal.value.y - at.y) - goals.goal.radius) < reach * 0.7) {
    gesture = { kind: 'rim', id: '', moved: false, dx: 0, dy: 0 }
  } else if (ways.isOpen && goals.goal.kind === 'stop' && at.x > 0 && at.x < reference.value.length && at.y > 0 && at.y < reference.value.width) {
    // Within the circle it is taken as it lies under the hand; elsewhere it comes there.
    const inside = goal.value && Math.hypot(goal.value.x - at.x, goal.value.y - at.y) < goals.goal.radius
    gesture = { kind: 'place', id: '', moved: false, dx: inside ? goal.value!.x - at.x : 0, dy: inside ? goal.value!.y - at.y : 0 }
    if (!inside) move(e)
  } else {
    const pocket = near(pockets.value.map((p) => ({ ...p.drop, name: p.name })))
    if (pocket && pocket.d < 0.13) workspace.potInto(pocket.t.name)
    return
  }
  svg.value!.setPointerCapture(e.pointerId)
  svg.value!.focus({ preventScroll: true })
  e.preventDefault()
}

function move(e: PointerEvent) {
  if (map.isOpen) map.pointAt(toTable(e))
  if (!gesture) return
  const at = toTable(e)
  if (gesture.kind === 'aim') {
    gesture.moved = true
    workspace.aimFreely((Math.atan2(at.y - white.value!.y, at.x - white.value!.x) * 180) / Math.PI)
    return
  }
  if (gesture.kind === 'place') {
    const keep = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 1000) / 1000
    goals.goal.place = { x: keep(at.x + gesture.dx, reference.value.length), y: keep(at.y + gesture.dy, reference.value.width) }
    return
  }
  if (gesture.kind === 'rim') {
    goals.goal.radius = Math.round(Math.min(1, Math.max(0.03, Math.hypot(at.x - goal.value!.x, at.y - goal.value!.y))) * 200) / 200
    return
  }
  const ball = workspace.ball(gesture.id)
  const to = { x: at.x + gesture.dx, y: at.y + gesture.dy }
  if (!ball || (!gesture.moved && Math.hypot(to.x - ball.x, to.y - ball.y) < 3 * at.perPixel)) return
  gesture.moved = true
  void workspace.drag(gesture.id, to.x, to.y)
}

async function up(e: PointerEvent) {
  if (!gesture) return
  const { kind, id, moved, dx, dy } = gesture
  gesture = null
  if (kind === 'ball' && moved) {
    const at = toTable(e)
    await workspace.drag(id, at.x + dx, at.y + dy)
  }
  if (moved) workspace.commit()
}

const shownBalls = computed(() => (ahead.value ? ahead.value.content.balls.map((b) => ({ ...b })) : [...playback.balls].filter(([, at]) => at !== null).map(([id, at]) => ({ id, x: at!.x, y: at!.y }))))
const description = computed(() => `Table plan with ${workspace.content.balls.length} balls. Arrow keys move the ${nameOf(workspace.selected)}, comma and full stop choose another ball.`)
</script>

<template>
  <svg
    ref="svg"
    class="plan"
    :viewBox="viewBoxOf(reference)"
    role="application"
    tabindex="0"
    :aria-label="description"
    data-testid="plan"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @pointerleave="map.pointAt(null)"
  >
    <g v-for="p in pockets" :key="p.name" class="pocket" :class="{ wanted: stroke.pot?.pocket === p.name }">
      <circle :cx="sx(p.drop.x)" :cy="sy(p.drop.y)" :r="p.drop.radius * 1000 + radius * 0.35" />
      <title>{{ pocketName(p.name) }} pocket</title>
    </g>

    <g v-if="map.isOpen && map.map" class="map" data-testid="map">
      <path v-for="b in map.map.bands" :key="b.share" :d="outlinePath(b.outlines)" fill-rule="evenodd"><title>Worth {{ (b.share * 100).toFixed(0) }} % of the best place or more</title></path>
      <g v-if="map.map.best" class="best"><line :x1="sx(map.map.best.x) - 26" :y1="sy(map.map.best.y)" :x2="sx(map.map.best.x) + 26" :y2="sy(map.map.best.y)" /><line :x1="sx(map.map.best.x)" :y1="sy(map.map.best.y) - 26" :x2="sx(map.map.best.x)" :y2="sy(map.map.best.y) + 26" /></g>
    </g>
    <g v-if="planned" class="planned" data-testid="planned">
      <path v-if="planned.area.length" :d="outlinePath([planned.area])" class="area"><title>As good for the next ball as the place that is meant</title></path>
      <template v-if="!isPlannedSetUp">
        <line v-if="plannedPot" :x1="sx(plannedPot.x1)" :y1="sy(plannedPot.y1)" :x2="sx(plannedPot.x2)" :y2="sy(plannedPot.y2)" class="potting" />
        <polyline :points="points(planned.path)" />
        <circle :cx="sx(planned.path[planned.path.length - 1].x)" :cy="sy(planned.path[planned.path.length - 1].y)" :r="radius" />
      </template>
    </g>

    <g v-if="safety" class="spread" data-testid="safety-spread">
      <path :d="outlinePath(safety.whiteSpread)" class="likely"><title>The white stops in here two times of three</title></path>
      <path :d="outlinePath(safety.ballSpread)" class="nearly"><title>The ball stops in here two times of three</title></path>
    </g>
    <g v-if="ways.isOpen" class="mirror" data-testid="way-mirror">
      <polyline v-for="w in shownWays.filter((w) => w.mirror.length)" :key="w.key" :points="points(w.mirror)"><title>As in a mirror, from the contact to where the white stops</title></polyline>
    </g>
    <g v-if="escape?.mirror" class="mirror" data-testid="mirror">
      <polyline :points="points(escape.mirror.points)" />
      <line v-if="escape.mirror.known" :x1="sx(escape.mirror.known.fromX)" :y1="sy(escape.mirror.known.fromY)" :x2="sx(escape.mirror.known.toX)" :y2="sy(escape.mirror.known.toY)" class="known" />
    </g>
    <g v-if="rivalLines.length" class="rival" data-testid="rival-lines">
      <line v-for="l in rivalLines" :key="l.ball + l.pocket" :x1="sx(l.fromX)" :y1="sy(l.fromY)" :x2="sx(l.toX)" :y2="sy(l.toY)" :class="{ closed: !l.chance }">
        <title>{{ nameOf(l.ball) }}, {{ pocketName(l.pocket) }} pocket: {{ l.chance ? `${(l.chance * 100).toFixed(0)} %` : `closed by the ${nameOf(l.blocker ?? '')}` }}</title>
      </line>
    </g>

    <!-- Where the white may stop, and the same pot played otherwise -->
    <g v-if="judgements.spread" class="spread" data-testid="spread-outline">
      <path :d="outlinePath(judgements.spread.nearly)" class="nearly"><title>The white stops in here 95 times of 100</title></path>
      <path :d="outlinePath(judgements.spread.likely)" class="likely"><title>The white stops in here 68 times of 100</title></path>
      <path :d="outlinePath(judgements.spread.thickLeaves)" class="missed"><title>Missed thick, the object ball stops in here 68 times of 100</title></path>
      <path :d="outlinePath(judgements.spread.thinLeaves)" class="missed thin"><title>Missed thin, the object ball stops in here 68 times of 100</title></path>
    </g>
    <g v-if="judgements.pointed" class="pointed" data-testid="pointed">
      <template v-for="c in [judgements.pointed.cut]" :key="c.ball + c.pocket">
        <line v-if="white" :x1="sx(white.x)" :y1="sy(white.y)" :x2="sx(c.ghostX)" :y2="sy(c.ghostY)" />
        <line v-for="(l, i) in c.legs" :key="i" :x1="sx(l.fromX)" :y1="sy(l.fromY)" :x2="sx(l.toX)" :y2="sy(l.toY)" />
        <circle :cx="sx(c.ghostX)" :cy="sy(c.ghostY)" :r="radius" />
      </template>
    </g>
    <circle v-if="goal" :cx="sx(goal.x)" :cy="sy(goal.y)" :r="goals.goal.radius * 1000" class="goal" data-testid="goal" />
    <g class="ways">
      <g v-for="w in shownWays" :key="w.key" :class="w.key" :data-way="w.key">
        <polyline :points="points(w.points)" />
        <circle :cx="sx(w.end.x)" :cy="sy(w.end.y)" :r="radius" />
      </g>
    </g>
    <g class="fan">
      <g v-for="(f, i) in judgements.fan" :key="f.key" :data-fan="f.key">
        <polyline :points="points(f.points)" :stroke-dasharray="fanDashes[i % fanDashes.length]" />
        <circle :cx="sx(f.points[f.points.length - 1].x)" :cy="sy(f.points[f.points.length - 1].y)" r="14" />
      </g>
    </g>

    <!-- What the shot does -->
    <g class="lines" :class="{ refused: !!workspace.problem }">
      <polyline v-for="p in otherPaths" :key="p.id" :points="points(p.points)" class="path other" :style="{ stroke: p.id === 'black' ? '#9aa3a0' : lookOf(p.id).fill }" />
      <template v-if="cut && workspace.ball(cut.ball)">
        <line v-for="(l, i) in cut.legs" :key="i" :x1="sx(l.fromX)" :y1="sy(l.fromY)" :x2="sx(l.toX)" :y2="sy(l.toY)" class="potting" />
        <circle :cx="sx(cut.ghostX)" :cy="sy(cut.ghostY)" :r="radius" class="ghost" />
      </template>
      <polyline :points="points(whitePath.before)" class="path before" data-testid="white-before" />
      <polyline :points="points(whitePath.after)" class="path after" data-testid="white-after" />
      <circle v-for="f in finals" :key="f.id" :cx="sx(f.x)" :cy="sy(f.y)" :r="radius" class="rest" :class="{ 'rest-white': f.id === 'white' }" />
    </g>
    <g v-if="aimHandle && white && !playback.isPlaying && !isDeskHidden" class="aim">
      <line :x1="sx(white.x)" :y1="sy(white.y)" :x2="sx(aimHandle.x)" :y2="sy(aimHandle.y)" />
      <rect :x="sx(aimHandle.x) - 17" :y="sy(aimHandle.y) - 17" width="34" height="34" :transform="`rotate(45 ${sx(aimHandle.x)} ${sy(aimHandle.y)})`" data-testid="aim-handle" />
    </g>
    <g class="balls">
      <g v-for="b in shownBalls" :key="b.id" :transform="`translate(${sx(b.x).toFixed(2)} ${sy(b.y).toFixed(2)})`" :data-ball="b.id">
        <circle v-if="b.id === workspace.selected" :r="radius + 14" class="selected" />
        <circle :r="radius" :fill="lookOf(b.id).fill" class="ball" :class="{ dark: b.id === 'black' }" />
        <text v-if="!isRed(b.id)" :fill="lookOf(b.id).ink">{{ lookOf(b.id).mark }}</text>
        <circle v-else r="6" fill="#fff" />
        <title>{{ nameOf(b.id) }}</title>
      </g>
    </g>
    <g class="labels">
      <circle v-for="e in events" :key="e.number" :cx="sx(e.event.x)" :cy="sy(e.event.y)" r="9" class="mark" />
      <text v-for="l in labels" :key="l.key" :x="l.left" :y="l.baseline" :class="l.kind" :font-size="l.size">{{ l.text }}</text>
    </g>
  </svg>
</template>

<style scoped>
.plan {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
  font-family: var(--font);
}
.plan:focus-visible {
  outline-offset: -2px;
}
.pocket {
  cursor: pointer;
  fill: transparent;
}
.pocket:hover circle,
.pocket.wanted circle {
  stroke: var(--brass);
  stroke-width: 9;
}
.path {
  fill: none;
  stroke-linejoin: round;
}
.path.before {
  stroke: var(--chalk);
  stroke-width: 7;
}
.path.after {
  stroke: var(--chalk);
  stroke-width: 11;
  stroke-dasharray: 38 12;
}
.path.other {
  stroke-width: 6;
  stroke-dasharray: 5 13;
  stroke-linecap: round;
}
.refused {
  opacity: 0.25;
}
.spread path {
  stroke: var(--chalk);
}
.nearly {
  fill: rgb(245 239 220 / 0.1);
  stroke-width: 4;
  stroke-dasharray: 10 10;
}
.likely {
  fill: rgb(245 239 220 / 0.2);
  stroke-width: 5;
}
.missed {
  fill: rgb(255 143 120 / 0.12);
}
.spread .missed {
  stroke: var(--coral);
  stroke-width: 5;
  stroke-dasharray: 4 10;
}
.spread .missed.thin {
  stroke-dasharray: 22 8;
}
.labels text.missed {
  fill: #ffb3a2;
}
.goal {
  fill: rgb(226 184 90 / 0.14);
  stroke: var(--brass);
  stroke-width: 7;
  stroke-dasharray: 20 12;
  cursor: move;
}
.ways polyline,
.ways circle {
  fill: none;
  stroke: #9fd8d0;
  stroke-width: 8;
}
.ways .a polyline {
  stroke-dasharray: 44 12;
}
.ways .b polyline {
  stroke-dasharray: 12 12;
}
.map path {
  fill: rgb(245 239 220 / 0.1);
  stroke: var(--chalk-soft);
  stroke-width: 3;
  stroke-opacity: 0.7;
}
.best line {
  stroke: var(--brass);
  stroke-width: 7;
}
.mirror polyline,
.mirror line {
  fill: none;
  stroke: var(--brass);
  stroke-width: 5;
  stroke-dasharray: 8 12;
}
.mirror .known {
  stroke-dasharray: 2 10;
  stroke-linecap: round;
}
.rival line {
  stroke: var(--coral);
  stroke-width: 9;
  stroke-dasharray: 30 8;
}
.rival line.closed {
  stroke-width: 3;
  stroke-dasharray: 4 14;
}
.planned .area {
  fill: rgb(226 184 90 / 0.2);
  stroke: var(--brass);
  stroke-width: 4;
}
.planned polyline,
.planned circle {
  fill: none;
  stroke: #9fd8d0;
  stroke-width: 9;
  stroke-dasharray: 44 12;
  stroke-linejoin: round;
}
.planned circle {
  stroke-dasharray: none;
}
.fan polyline {
  fill: none;
  stroke: #9fd8d0;
  stroke-width: 6;
}
.fan circle {
  fill: #9fd8d0;
}
.pointed line,
.pointed circle {
  fill: none;
  stroke: var(--brass);
  stroke-width: 9;
  opacity: 0.75;
}
.potting {
  stroke: var(--brass);
  stroke-width: 6;
  stroke-dasharray: 26 14;
}
.ghost {
  fill: none;
  stroke: var(--brass);
  stroke-width: 6;
}
.rest {
  fill: none;
  stroke: var(--chalk-soft);
  stroke-width: 5;
  stroke-dasharray: 9 9;
}
.rest-white {
  stroke: var(--chalk);
  stroke-width: 9;
  stroke-dasharray: none;
}
.aim line {
  stroke: var(--brass);
  stroke-width: 5;
}
.aim rect {
  fill: var(--brass);
  stroke: #231a05;
  stroke-width: 4;
  cursor: grab;
}
.ball {
  stroke: #06181a;
  stroke-width: 3;
  cursor: grab;
}
.ball.dark {
  stroke: #b9c2ba;
}
.balls text {
  font-size: 38px;
  font-weight: 700;
  text-anchor: middle;
  dominant-baseline: central;
  pointer-events: none;
}
.selected {
  fill: none;
  stroke: var(--brass);
  stroke-width: 7;
}
.labels {
  pointer-events: none;
}
.mark {
  fill: var(--cloth-deep);
  stroke: var(--chalk);
  stroke-width: 5;
}
.labels text {
  fill: var(--chalk);
  paint-order: stroke;
  stroke: var(--cloth-deep);
  stroke-width: 11px;
  stroke-linejoin: round;
}
.labels text.brass {
  fill: var(--brass);
}
.labels text.fan {
  fill: #b8ebe4;
}
.labels text.strong,
.labels text.number {
  font-weight: 650;
}
</style>
