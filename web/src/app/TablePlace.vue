<script setup lang="ts">
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { ElSplitter, ElSplitterPanel } from 'element-plus'
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue'
import PicturePanel from '../features/shot/PicturePanel.vue'
import { useShell } from '../lib/useShell'
import { useShot } from '../position/shot'
import { useDraft } from '../position/draft'
import { useLaying } from '../position/laying'
import { usePlayback } from '../position/playback'
import { useView } from '../position/view'
import { aspect, provideDrawing } from '../table/bed'
import TablePlan from '../table/TablePlan.vue'
import { useFeatures } from './features'
import PositionBar from './PositionBar.vue'
import StepLinks from './StepLinks.vue'

/** The table: the plan stays, the desk shows one step of the work at a time. On a phone the desk is a sheet beneath the plan. */
const panels = {
  read: defineAsyncComponent(() => import('../features/read/ReadPanel.vue')),
  shot: defineAsyncComponent(() => import('../features/shot/ShotPanel.vue')),
  break: defineAsyncComponent(() => import('../features/break/BreakPanel.vue')),
  safety: defineAsyncComponent(() => import('../features/safety/DecidePanel.vue')),
}
const QuickStrike = defineAsyncComponent(() => import('../features/shot/QuickStrike.vue'))
const BallRail = defineAsyncComponent(() => import('../position/BallRail.vue'))
const BreakStrip = defineAsyncComponent(() => import('../features/break/BreakStrip.vue'))

const position = useDraft()
const answer = useShot()
const playback = usePlayback()
const view = useView()
const laying = useLaying()
const { layers } = useFeatures()
provideDrawing(computed(() => position.reference!))
const { isPhone, isSmall, isUpright } = useShell()
/** How much of the width the plan takes, %, if somebody has moved the handle; else as much as the height of the window lets it use. */
const share = useLocalStorage<number | null>('deep-baize-plan-width', null)
const halves = ref<HTMLElement>()
const { width: across, height: down } = useElementSize(halves)
/** What stands below the plan takes so much at the least, px; and the desk beside it. */
const [below, narrowestDesk] = [262, 384]
const usual = computed(() => {
  const width = across.value || window.innerWidth
  const most = Math.min(width - narrowestDesk, ((down.value || window.innerHeight - 92) - below) * aspect + 26)
  return Math.max(50, (100 * most) / width)
})
const left = computed({
  get: () => `${share.value !== null && !isSmall.value ? share.value : usual.value}%`,
  set: (value: string | number) => {
    const percent = typeof value === 'number' ? (value / (across.value || window.innerWidth)) * 100 : parseFloat(value)
    if (Number.isFinite(percent) && !isSmall.value && Math.abs(percent - usual.value) > 0.2) share.value = Math.round(percent * 10) / 10
  },
})

const lying = computed(() =>
  view.ahead ? view.ahead.map((b) => ({ ...b })) : [...playback.balls].filter(([, at]) => at !== null).map(([id, at]) => ({ id, ...at! })),
)
const aim = computed(() => {
  const white = view.ahead || view.isShotHidden || (playback.isPlaying && !playback.cue) ? undefined : position.ball('white')
  return white ? { x: white.x, y: white.y, degrees: answer.aim } : null
})
/** The path first: what is beside the plan is drawn once the path has been, or is refused. */
const isPathDrawn = ref(false)
const stopWaiting = watch(
  [() => answer.shot, () => position.problem],
  async ([shot, problem]) => {
    if (!shot && !problem) return
    await nextTick()
    stopWaiting()
    requestAnimationFrame(() => {
      // For whoever measures how long it took to open (bench/page-speed.js).
      performance.mark('first-path')
      isPathDrawn.value = true
    })
  },
  { immediate: true, flush: 'post' },
)
function take(id: string) {
  playback.rewind()
  position.selected = id
}
</script>

<template>
  <main class="table-place" :class="{ phone: isPhone }">
    <PositionBar />
    <div ref="halves" class="halves">
      <component :is="isPhone ? 'div' : ElSplitter" class="parts">
        <component :is="isPhone ? 'div' : ElSplitterPanel" v-model:size="left" class="half" min="40%" max="75%">
          <div class="left" :class="{ upright: isUpright }">
            <div class="plan-frame">
              <TablePlan
                :table="answer.table"
                :balls="lying"
                :pockets="answer.table?.pockets ?? []"
                :layers="layers"
                :selected="position.selected"
                :wanted="position.stroke.pot?.pocket"
                :aim="aim"
                :cue="playback.cue"
                :is-locked="!!view.ahead"
                :is-turned="isUpright"
                :group="laying.group"
                :laying="laying.next"
                :is-lassoing="laying.isLassoing"
                :drag="position.drag"
                :drag-group="laying.moveGroup"
                @lay="laying.lay"
                @take-away="laying.takeAway($event)"
                @take-together="laying.group = $event"
                @take="take"
                @aim-at="position.aimFreely($event)"
                @pocket="position.potInto($event)"
                @done="position.commit()"
              />
            </div>
            <QuickStrike v-if="isUpright" class="quick" />
            <BallRail v-if="isPathDrawn || !position.ball('white')" class="rail" />
            <template v-if="isPathDrawn"><BreakStrip v-if="view.step === 'break'" class="below" /><PicturePanel class="below" /></template>
          </div>
        </component>
        <component :is="isPhone ? 'div' : ElSplitterPanel" class="half">
          <section class="desk" aria-label="Desk">
            <StepLinks />
            <div class="step" :class="view.step"><component :is="panels[view.step]" v-if="isPathDrawn" /></div>
          </section>
        </component>
      </component>
    </div>
  </main>
</template>

<style scoped>
.table-place {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
.halves {
  flex: 1;
  min-height: 0;
}
.parts {
  height: 100%;
}
.half {
  overflow: hidden;
}
.left {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  padding: var(--space-3) var(--space-4);
  height: 100%;
  min-height: 0;
  min-width: 0;
}
.plan-frame {
  position: relative;
  contain: strict;
  aspect-ratio: 3841 / 2050;
  width: 100%;
  max-height: calc(100% - 170px);
  flex: none;
}
.desk {
  background: var(--panel);
  overflow: auto;
  display: flex;
  flex-direction: column;
  height: 100%;
  container-type: inline-size;
}
.step {
  flex: 1;
  display: flex;
  flex-direction: column;
}
.step :deep(.fills) {
  flex: 1;
  border-bottom: 0;
}
.step :deep(.fills + .panel) {
  border-top: 1px solid var(--edge);
}
/* A wide desk has two columns where what is set up and what is drawn of it are seen side by side. */
@container (min-width: 680px) {
  .step.shot {
    display: grid;
    grid-template-columns: 1fr 1fr;
    align-content: start;
  }
  .step.shot > :deep(.views),
  .step.shot > :deep(.fills) {
    grid-column: 1 / 3;
  }
}
/* The plan stays at the top, and what is changed moves beneath it. */
.phone .parts {
  display: flex;
  flex-direction: column;
}
.phone .half:first-child {
  flex: none;
}
.phone .half:last-child {
  flex: 1;
  min-height: 0;
}
.phone .left {
  padding: 0;
  gap: var(--space-1);
  height: auto;
}
.phone .plan-frame {
  max-height: 42dvh;
}
/* A phone: the table stands upright, and what is changed beside it. */
.left.upright {
  display: grid;
  grid-template-columns: calc(46dvh * 2050 / 3841) minmax(0, 1fr);
}
.left.upright .plan-frame {
  aspect-ratio: 2050 / 3841;
  height: 46dvh;
  max-height: none;
  width: 100%;
}
.left.upright .quick {
  height: 46dvh;
}
.left.upright .rail,
.left.upright .below {
  grid-column: 1 / 3;
}
.phone .desk {
  border-top: 1px solid var(--edge);
}
</style>
