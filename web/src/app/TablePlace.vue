<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import PicturePanel from '../features/shot/PicturePanel.vue'
import ChoosePanel from '../features/shot/ChoosePanel.vue'
import { useJudgements, type Below } from '../features/shot/judgements'
import BallPanel from '../position/BallPanel.vue'
import StrikePanel from '../features/shot/StrikePanel.vue'
import TableBed from '../table/TableBed.vue'
import TablePlan from '../table/TablePlan.vue'
import PositionBar from './PositionBar.vue'
import { stepOf } from './tableAddress'

/** The table: the plan stays, the desk shows one step of the work at a time. */
const ReadList = defineAsyncComponent(() => import('../features/read/ReadList.vue'))
const WaysPanel = defineAsyncComponent(() => import('../features/shot/WaysPanel.vue'))
const KeptShots = defineAsyncComponent(() => import('../features/shot/KeptShots.vue'))
const PlanPanel = defineAsyncComponent(() => import('../features/break/PlanPanel.vue'))
const DecidePanel = defineAsyncComponent(() => import('../features/safety/DecidePanel.vue'))

const judgements = useJudgements()
const step = computed(() => stepOf(judgements.below))
const tabs: { below: Below; label: string; asks: string; testId: string }[] = [
  { below: 'on', label: 'Read', asks: 'What is on?', testId: 'what-is-on' },
  { below: 'happens', label: 'Shot', asks: 'How do I play this one, and what if?', testId: 'what-happens' },
  { below: 'plan', label: 'Break', asks: 'What next, and after that?', testId: 'plan-break' },
  { below: 'decide', label: 'Safety', asks: 'Or leave it?', testId: 'decide' },
]
const views: { below: Below; label: string; testId: string }[] = [
  { below: 'happens', label: 'Set up', testId: 'set-up' },
  { below: 'ways', label: 'Put it there', testId: 'put-it-there' },
  { below: 'shots', label: 'Kept', testId: 'keep' },
]
</script>

<template>
  <div class="table-place">
    <PositionBar />
    <main>
      <div class="left">
        <div class="plan-frame"><TableBed /><TablePlan /></div>
        <PicturePanel />
      </div>
      <section class="desk" aria-label="Desk">
        <div class="steps" role="tablist" aria-label="Steps">
          <button v-for="t in tabs" :key="t.below" role="tab" :aria-selected="step === stepOf(t.below)" :title="t.asks" :data-testid="t.testId" @click="judgements.below = t.below">{{ t.label }}</button>
        </div>
        <template v-if="step === 'read'">
          <BallPanel />
          <div class="panel fills"><ReadList /></div>
        </template>
        <template v-else-if="step === 'shot'">
          <div class="panel views">
            <span class="joined" role="group" aria-label="Of the shot">
              <button v-for="v in views" :key="v.below" class="key" :aria-pressed="judgements.below === v.below" :data-testid="v.testId" @click="judgements.below = v.below">{{ v.label }}</button>
            </span>
          </div>
          <template v-if="judgements.below === 'happens'"><BallPanel /><ChoosePanel /></template>
          <div v-else class="panel fills"><WaysPanel v-if="judgements.below === 'ways'" /><KeptShots v-else /></div>
          <StrikePanel />
        </template>
        <div v-else class="panel fills"><PlanPanel v-if="step === 'break'" /><DecidePanel v-else /></div>
      </section>
    </main>
  </div>
</template>

<style scoped>
.table-place {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
main {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--desk);
}
.left {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 12px;
  min-height: 0;
  min-width: 0;
}
.plan-frame {
  position: relative;
  contain: strict;
  aspect-ratio: 3881 / 2120;
  width: 100%;
  max-height: 74%;
  flex: none;
}
.desk {
  border-left: 1px solid var(--edge);
  background: var(--panel);
  overflow: auto;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.steps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  border-bottom: 1px solid var(--edge);
  position: sticky;
  top: 0;
  background: var(--panel);
  z-index: 2;
  flex: none;
}
.steps button {
  all: unset;
  min-height: 38px;
  text-align: center;
  cursor: pointer;
  color: var(--text-soft);
}
.steps button:focus-visible {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
.steps [aria-selected='true'] {
  color: var(--text);
  font-weight: 650;
  box-shadow: inset 0 -3px 0 var(--accent);
}
.desk :deep(.panel) {
  padding: 7px 14px;
  border-bottom: 1px solid var(--edge);
  display: flex;
  flex-direction: column;
  gap: 5px;
}
.desk :deep(.row) {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.desk :deep(p) {
  margin: 0;
}
.desk .fills {
  flex: 1;
  min-height: 240px;
  border-bottom: 0;
}
.desk .fills + :deep(.panel) {
  border-top: 1px solid var(--edge);
}
@media (max-width: 860px) {
  main {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
  }
  .left {
    display: contents;
  }
  .plan-frame {
    position: sticky;
    top: 0;
    z-index: 3;
    max-height: none;
    background: var(--page);
  }
  .desk {
    border-left: 0;
    overflow: visible;
  }
}
</style>
