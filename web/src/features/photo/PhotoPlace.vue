<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { lookOf, nameOf } from '../../domain/balls'
import { lengthWords, listWords, sentence } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { useNotices } from '../../lib/notices'
import { useDraft } from '../../position/draft'
import CameraView from '../../table/CameraView.vue'
import type { Hand, Hands } from '../../table/hands'
import { useView } from '../../position/view'
import BallDot from '../../ui/BallDot.vue'
import FilePick from '../../ui/FilePick.vue'
import OneOf from '../../ui/OneOf.vue'
import { corners, pointNames, spots, usePhoto } from './photo'

/** The table from a photograph: marks on known points, a tap on each ball, and the position is there. */
const photo = usePhoto()
const position = useDraft()
const router = useRouter()
const notices = useNotices()
const view = useView()
const { attempt, busy } = useAttempt()
const viewer = ref<InstanceType<typeof CameraView>>()
/** Picture px for a px of the screen. */
const perPixel = computed(() => viewer.value?.camera.perPixel.value ?? photo.size.value.width / 800)
const bounds = computed(() => ({ left: 0, top: 0, width: photo.size.value.width, height: photo.size.value.height }))

const step = ref<'marks' | 'balls'>('marks')
const steps = [
  { value: 'marks', label: '1 Marks', testId: 'photo-marks' },
  { value: 'balls', label: '2 Balls', testId: 'photo-balls' },
] as const
const spot = ref('')
const colours = computed(() => position.reference!.spots.map((s) => s.ball))
const nextRed = computed(
  () => position.reference!.ballIds.find((id) => id.startsWith('red-') && !photo.taps.value.some((t) => t.name === id)) ?? '',
)
const inHand = ref<'white' | 'red' | string>('white')
const ball = computed(() => (inHand.value === 'red' ? nextRed.value : inHand.value))

async function pick(file: File) {
  try {
    await photo.take(file)
    step.value = 'marks'
  } catch (e) {
    notices.show({ kind: 'error', text: e instanceof Error ? e.message : 'This file cannot be shown.' })
  }
}

// ---- The thumb: drags a mark, or taps a ball; a glass above it shows what is under it ---------------------------
const at = (hand: Hand) => {
  const { width, height } = photo.size.value
  return { u: Math.min(width, Math.max(0, hand.x)), v: Math.min(height, Math.max(0, hand.y)) }
}
function take(place: { u: number; v: number }): { kind: 'mark' | 'tap'; name: string } | null {
  const kind = step.value === 'marks' ? 'mark' : 'tap'
  const list = kind === 'mark' ? photo.marks.value : photo.taps.value
  const near = [...list].map((m) => ({ m, d: Math.hypot(m.u - place.u, m.v - place.v) })).sort((a, b) => a.d - b.d)[0]
  if (near && near.d < 28 * perPixel.value) return { kind, name: near.m.name }
  if (kind === 'mark') {
    const name = spot.value
    spot.value = ''
    return name ? { kind, name } : null
  }
  return ball.value ? { kind, name: ball.value } : null
}
const hands: Hands = {
  down(hand) {
    const held = take(at(hand))
    if (!held) return null
    const move = (to: Hand) => (held.kind === 'mark' ? photo.mark(held.name, at(to)) : photo.tap(held.name, at(to)))
    move(hand)
    if (held.kind === 'tap' && inHand.value === 'white') inHand.value = 'red'
    return {
      move,
      up: () => void (held.kind === 'tap' && photo.settle(held.name)),
      glass: () => (held.kind === 'mark' ? pointNames[held.name] : nameOf(held.name)),
    }
  },
}
const outline = computed(() => corners.flatMap((c) => photo.marks.value.filter((m) => m.name === c).map((m) => `${m.u},${m.v}`)).join(' '))

// ---- What it says ----------------------------------------------------------------------------------------------
const read = () => attempt(photo.read, 'Could not read the table')
const toBalls = () =>
  attempt(async () => {
    await photo.checkMarks()
    step.value = 'balls'
  }, 'The marks do not fit')
/** Colours that lie so near to their spots that they will stand on them. */
const near = 0.025
const spotOf = (id: string) => position.reference!.spots.find((s) => s.ball === id)
const seemStanding = computed(() =>
  (photo.result.value?.balls ?? [])
    .filter((b) => {
      const its = photo.standing.value.includes(b.id) ? undefined : spotOf(b.id)
      return its && Math.hypot(b.x - its.x, b.y - its.y) < Math.max(near, b.error)
    })
    .map((b) => b.id),
)
const stand = (names: string[]) => attempt(() => photo.setStanding(names), 'Could not read the table')
const errorOf = (name: string) =>
  photo.standing.value.includes(name) ? 0 : (photo.result.value?.balls.find((b) => b.id === name)?.error ?? 0)
const worst = computed(() => Math.max(0, ...(photo.result.value?.balls.map((b) => errorOf(b.id)) ?? [])))
const hasWhite = computed(() => photo.taps.value.some((t) => t.name === 'white'))
const moved = computed(() => (photo.result.value?.balls ?? []).filter((b) => b.moved > 0.001))
function lay() {
  const balls = photo.result.value!.balls.map((b) => {
    const { x, y } = photo.standing.value.includes(b.id) ? spotOf(b.id)! : b
    return { id: b.id, x, y }
  })
  const before = position.draft.name
  // The step first: what is opened is gone to there.
  view.go('read')
  const back = position.begin('From a photograph', {
    balls,
    stroke: { ...position.stroke, pot: null, free: false },
    conditions: { ...position.content.conditions },
  })
  notices.show({ kind: 'info', text: 'Set up as a new position. Not saved yet.', action: { label: `Back to “${before}”`, run: back } })
  void router.push('/table/now/read')
}
</script>

<template>
  <main class="place wide-place" data-testid="photo-place">
    <h1>The table from a photograph</h1>
    <p class="soft">
      The picture stays on this device; only the places of marks and balls are sent. Best taken from high at the side, with all four corners
      in view.
    </p>
    <div class="row tools">
      <FilePick accept="image/*" test-id="photo-file" @picked="pick">{{
        photo.address.value ? 'Another picture' : 'Take or choose a picture'
      }}</FilePick>
      <OneOf
        v-if="photo.address.value"
        :model-value="step"
        :options="steps"
        label="What to do"
        @update:model-value="$event === 'balls' ? toBalls() : (step = 'marks')"
      />
    </div>
    <div v-if="photo.address.value" class="beside">
      <div class="frame-of-picture" :style="{ '--shape': photo.size.value.width / photo.size.value.height }">
        <CameraView
          ref="viewer"
          :bounds="bounds"
          :hands="hands"
          is-in-page
          is-held
          class="photo-picture"
          role="img"
          aria-label="The picture, with marks and balls"
          data-testid="picture"
        >
          <image :href="photo.address.value" :width="photo.size.value.width" :height="photo.size.value.height" />
          <polygon v-if="step === 'marks' && outline" :points="outline" class="frame" :stroke-width="2 * perPixel" />
          <g v-for="m in photo.marks.value" :key="m.name" class="mark" :class="{ faint: step === 'balls' }">
            <line :x1="m.u - 14 * perPixel" :x2="m.u + 14 * perPixel" :y1="m.v" :y2="m.v" :stroke-width="2 * perPixel" />
            <line :y1="m.v - 14 * perPixel" :y2="m.v + 14 * perPixel" :x1="m.u" :x2="m.u" :stroke-width="2 * perPixel" />
            <text
              v-if="step === 'marks'"
              :x="m.u + 10 * perPixel"
              :y="m.v - 10 * perPixel"
              :font-size="13 * perPixel"
              :stroke-width="3 * perPixel"
            >
              {{ pointNames[m.name] }}
            </text>
          </g>
          <g v-for="t in photo.taps.value" :key="t.name">
            <circle
              :cx="t.u"
              :cy="t.v"
              :r="t.radius ? t.radius + 2.5 * perPixel : 9 * perPixel"
              :stroke-dasharray="t.radius ? undefined : `${4 * perPixel} ${3 * perPixel}`"
              fill="none"
              :stroke="lookOf(t.name).fill"
              :stroke-width="3 * perPixel"
            />
            <circle :cx="t.u" :cy="t.v" :r="1.5 * perPixel" fill="#fff" />
          </g>
        </CameraView>
      </div>
      <div>
        <template v-if="step === 'marks'">
          <p>Drag each cross to the corner where the noses of two cushions would meet.</p>
          <p>
            {{
              photo.hasLens.value
                ? 'The lens of this camera is known from an earlier picture.'
                : 'Three spots more, or balls that stand on them, and the lens is known too: it is then twice as exact.'
            }}
          </p>
          <div class="row">
            <ElButton
              v-for="s in spots"
              :key="s"
              size="small"
              :type="spot === s ? 'primary' : undefined"
              @click="photo.marks.value.some((m) => m.name === s) ? photo.unmark(s) : (spot = spot === s ? '' : s)"
              >{{ sentence(s) }}’s spot{{ photo.marks.value.some((m) => m.name === s) ? ' ✓' : '' }}</ElButton
            >
          </div>
          <p v-if="spot" role="status">Touch the {{ spot }}’s spot in the picture.</p>
          <ElButton type="primary" data-testid="marks-done" :disabled="busy" @click="toBalls">To the balls</ElButton>
        </template>
        <template v-else>
          <p>
            Choose a ball and touch it in the picture. A full ring shows that its middle was found; a broken ring stays where you touched.
            Drag it to correct it.
          </p>
          <div class="row">
            <ElButton
              v-for="b in ['white', 'red', ...colours]"
              :key="b"
              size="small"
              :type="inHand === b ? 'primary' : undefined"
              :data-testid="`hold-${b}`"
              @click="inHand = b"
              ><BallDot :ball="b === 'red' ? nextRed || 'red-1' : b" />&nbsp;{{ b }}</ElButton
            >
          </div>
          <ul class="taps">
            <li v-for="t in photo.taps.value" :key="t.name">
              <BallDot :ball="t.name" /> {{ nameOf(t.name) }}
              <span v-if="photo.standing.value.includes(t.name)" class="soft">on its spot</span>
              <span v-else-if="photo.result.value" class="soft">± {{ lengthWords(errorOf(t.name)) }}</span>
              <ElButton
                v-if="photo.standing.value.includes(t.name)"
                size="small"
                text
                @click="stand(photo.standing.value.filter((s) => s !== t.name))"
                >It is not</ElButton
              >
              <ElButton size="small" text :aria-label="`Take ${nameOf(t.name)} away`" @click="photo.remove(t.name)">Take away</ElButton>
            </li>
          </ul>
          <p v-if="!hasWhite" class="soft">The white is missing.</p>
          <ElButton v-if="!photo.result.value" type="primary" :disabled="busy || !hasWhite" data-testid="read-photo" @click="read"
            >Where do they lie?</ElButton
          >
          <template v-else>
            <p data-testid="photo-error">
              Each may be off by {{ lengthWords(worst) }} or less, 19 times of 20<template v-if="moved.length"
                >; {{ listWords(moved.map((b) => nameOf(b.id))) }} moved a little so that they do not overlap</template
              >.
            </p>
            <p v-if="seemStanding.length" data-testid="seem-standing">
              {{ sentence(listWords(seemStanding)) }}
              {{ seemStanding.length > 1 ? 'seem to be on their spots' : 'seems to be on its spot' }}. If so, all the others can be placed
              more exactly.
              <ElButton size="small" data-testid="they-stand" :disabled="busy" @click="stand([...photo.standing.value, ...seemStanding])">{{
                seemStanding.length > 1 ? 'They do' : 'It does'
              }}</ElButton>
            </p>
            <ElButton type="primary" data-testid="lay-photo" @click="lay">Set them up on the table</ElButton>
          </template>
        </template>
      </div>
    </div>
  </main>
</template>

<style scoped>
.tools {
  margin-bottom: var(--space-3);
}
.beside {
  display: grid;
  grid-template-columns: minmax(0, 64fr) minmax(260px, 36fr);
  gap: var(--space-4) var(--space-6);
  align-items: start;
}
@media (max-width: 860px) {
  .beside {
    grid-template-columns: 1fr;
  }
}
.frame-of-picture {
  position: relative;
  aspect-ratio: var(--shape);
  width: 100%;
  max-height: 78vh;
  background: #000;
}
.frame {
  fill: none;
  stroke: var(--brass);
  stroke-dasharray: 12 8;
}
.mark line {
  stroke: var(--brass);
}
.mark.faint {
  opacity: 0.5;
}
.mark text {
  fill: #fff;
  stroke: #000;
  paint-order: stroke;
}
.taps {
  list-style: none;
  padding: 0;
}
.taps li {
  display: flex;
  align-items: center;
  gap: var(--space-2);
}
.taps .el-button + .el-button {
  margin: 0;
}
</style>

<style>
.photo-picture {
  cursor: crosshair;
}
</style>
