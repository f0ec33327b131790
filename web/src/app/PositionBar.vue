<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu, ElInput } from 'element-plus'
import { defineAsyncComponent, nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useDraft } from '../position/draft'
import { useShot } from '../position/shot'
import { useKeeping } from '../position/keeping'
import { nameOf, pocketName } from '../domain/balls'
import { sentence } from '../lib/formats'
import { useGlance } from '../position/glance'
import { useLaying, type TableName } from '../position/laying'
import { usePractise } from '../position/practise'

/** The position that is on the table: what it is called, whether it is saved, and what can be done with it. */
const ConditionsDrawer = defineAsyncComponent(() => import('../features/club/ConditionsDrawer.vue'))
const position = useDraft()
const router = useRouter()
const keeping = useKeeping()
const answer = useShot()
const practise = usePractise()
const laying = useLaying()
const glance = useGlance()
/** Packed and unpacked only when somebody asks for it. */
const copyLink = async () => (await import('../position/links')).useLinks().copyLink()
const conditions = ref(false)
/** Loaded when it is first asked for. */
const hadConditions = ref(false)
/** The line about it while it is written; null while it is not. */
const about = ref<string | null>(null)
const field = ref<InstanceType<typeof ElInput>>()

async function beginAbout() {
  about.value = position.draft.about
  await nextTick()
  field.value?.focus()
}
/** Leaving it keeps what was written; Esc has let go of it before. */
function endAbout() {
  if (about.value !== null && about.value !== position.draft.about) {
    position.draft.about = about.value
    position.commit()
  }
  about.value = null
}

const deeds: Record<string, () => unknown> = {
  saveAs: () => keeping.saveAs(),
  rename: () => position.origin && keeping.rename({ ...position.origin, name: position.draft.name }, () => {}),
  remove: () => position.origin && keeping.remove({ ...position.origin, name: position.draft.name }, () => {}),
  json: () => keeping.exportJson(),
  svg: () => keeping.exportSvg(),
  conditions: showConditions,
  photo: () => router.push('/photo'),
  link: copyLink,
  glance: atTheTable,
}
/** The stroke that is set up, and where its white stops. */
function practiseThis() {
  const white = answer.shot?.simulation.finals.find((b) => b.id === 'white')
  practise.ask({
    name: position.draft.name,
    balls: position.content.balls,
    stroke: { ...position.stroke, aim: answer.aim },
    stop: white && !white.pocket ? { x: white.x, y: white.y } : null,
  })
}
/** The stroke that is set up, as one glance. */
function atTheTable() {
  const title = position.stroke.pot
    ? `${sentence(nameOf(position.stroke.pot.ball))} to the ${pocketName(position.stroke.pot.pocket)} pocket`
    : position.draft.name
  const content = { ...position.content, stroke: { ...position.stroke, aim: answer.aim } }
  glance.open([{ title, content, note: position.draft.about }], router.currentRoute.value.fullPath)
  return router.push('/glance')
}
function begin(what: string) {
  if (what === 'along' || what === 'across') void laying.mirror(what)
  else laying.begin(what as TableName)
}
function showConditions() {
  hadConditions.value = true
  conditions.value = !conditions.value
}
</script>

<template>
  <div class="position-bar" role="group" aria-label="The position">
    <div class="title">
      <h1 data-testid="position-name">{{ position.draft.name }}</h1>
      <span v-if="position.isDirty" class="unsaved" data-testid="unsaved">not saved</span>
      <ElButton text class="about" :title="position.draft.about || 'Add a note'" data-testid="about" @click="beginAbout">{{
        position.draft.about || 'Add a note'
      }}</ElButton>
      <ElInput
        v-if="about !== null"
        ref="field"
        v-model="about"
        class="about-edit"
        type="textarea"
        :rows="3"
        maxlength="2000"
        aria-label="Note on the position"
        data-testid="about-edit"
        @keydown.esc.stop="about = null"
        @blur="endAbout"
      />
    </div>
    <ElButton :disabled="!position.canUndo" data-testid="undo" @click="position.undo()">Undo</ElButton>
    <ElButton :disabled="!position.canRedo" data-testid="redo" @click="position.redo()">Redo</ElButton>
    <ElDropdown trigger="click" @command="begin">
      <ElButton data-testid="new-table">New</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="empty"><span data-testid="new-empty">Empty table</span></ElDropdownItem>
          <ElDropdownItem command="opening"><span data-testid="new-opening">Opening</span></ElDropdownItem>
          <ElDropdownItem command="lineUp">Line-up</ElDropdownItem>
          <ElDropdownItem command="colours">Colours</ElDropdownItem>
          <ElDropdownItem command="along" divided :disabled="!position.content.balls.length"
            ><span data-testid="mirror-along">Mirror, sides changed</span></ElDropdownItem
          >
          <ElDropdownItem command="across" :disabled="!position.content.balls.length"
            ><span data-testid="mirror-across">Mirror, ends changed</span></ElDropdownItem
          >
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <ElButton
      class="link"
      title="Copy an address that holds this position and its stroke; nothing is saved"
      data-testid="copy-link"
      @click="copyLink"
      >Copy link</ElButton
    >
    <ElButton class="practise" data-testid="practise" title="Turn this stroke into a routine and count attempts" @click="practiseThis"
      >Practise this</ElButton
    >
    <ElButton type="primary" :disabled="keeping.busy || !position.hasChanged" data-testid="save" @click="keeping.save()">Save</ElButton>
    <ElDropdown trigger="click" @command="(c: string) => deeds[c]?.()">
      <ElButton data-testid="more">More</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="saveAs">Save as …</ElDropdownItem>
          <ElDropdownItem command="rename" :disabled="!position.origin">Rename …</ElDropdownItem>
          <ElDropdownItem command="remove" :disabled="!position.origin">Delete</ElDropdownItem>
          <ElDropdownItem command="photo" divided>From a photograph …</ElDropdownItem>
          <ElDropdownItem command="glance">At a glance</ElDropdownItem>
          <ElDropdownItem command="link">Copy link</ElDropdownItem>
          <ElDropdownItem command="conditions" divided>Conditions …</ElDropdownItem>
          <ElDropdownItem command="json" divided>Export as JSON</ElDropdownItem>
          <ElDropdownItem command="svg">Export as SVG</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <ElButton
      class="conditions"
      data-testid="conditions"
      title="Cloth, balls, cushions, pockets and cue; the plan updates at once"
      @click="showConditions"
      >Conditions</ElButton
    >
    <ConditionsDrawer v-if="hadConditions" v-model="conditions" />
  </div>
</template>

<style scoped>
.position-bar {
  display: flex;
  gap: var(--space-3);
  align-items: center;
  padding: var(--space-2) var(--space-4);
  border-bottom: 1px solid var(--edge);
  min-width: 0;
  flex: none;
}
.position-bar .el-button + .el-button {
  margin-left: 0;
}
.title {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: var(--space-3);
  align-items: baseline;
  position: relative;
  white-space: nowrap;
}
h1 {
  font-size: var(--type-3);
  margin: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  flex: none;
  max-width: 60%;
}
.unsaved {
  color: var(--accent);
  font-size: var(--type-2);
}
.about.el-button {
  color: var(--text-soft);
  min-width: 0;
  flex: 0 1 auto;
  padding: 0 var(--space-2);
  height: 26px;
  font-weight: 400;
}
.about :deep(> span) {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
}
.about-edit {
  position: absolute;
  top: 28px;
  left: 0;
  right: 0;
  z-index: 20;
}
@media (max-width: 1360px) {
  .conditions {
    display: none;
  }
}
@media (max-width: 1100px) {
  .link.el-button {
    display: none;
  }
}
@media (max-width: 860px) {
  .position-bar {
    padding: var(--space-2) var(--space-3);
    gap: var(--space-1) var(--space-2);
  }
  .about {
    display: none;
  }
  /* The name above, and that it is not saved below: beside one another there is no room. */
  .title {
    flex-direction: column;
    align-items: flex-start;
    gap: 0;
    overflow: hidden;
  }
  h1 {
    max-width: 100%;
  }
  .unsaved {
    font-size: var(--type-1);
    line-height: 1.1;
  }
  .position-bar .el-button {
    padding: 0 var(--space-3);
  }
  .position-bar > .el-button {
    flex: 1;
  }
  h1 {
    max-width: 100%;
    flex: 1;
  }
}
/* The name has a line of its own: beside the buttons nothing of it would be left. */
@media (max-width: 620px) {
  .position-bar {
    flex-wrap: wrap;
  }
  .title {
    flex: 1 0 100%;
    flex-direction: row;
    align-items: baseline;
    gap: var(--space-3);
  }
}
</style>
