<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { detailWords, kindWords } from './clubWords'
import { askName } from '../../ui/askName'
import { useAttempt } from '../../lib/useAttempt'
import { useClub, type ClubCue, type ClubPlayer, type ClubTable, type Kind } from '../../position/club'
import ConditionsFields from './ConditionsFields.vue'
import PlayerFields from './PlayerFields.vue'
import SkillMeaning from './SkillMeaning.vue'

/** All players, tables or cues, and one of them to look at and change. */
const props = defineProps<{ kind: Kind; id?: string }>()
const club = useClub()
const router = useRouter()
const { attempt } = useAttempt()
const words = computed(() => kindWords[props.kind])
const things = computed(() => club.known[props.kind] as { id: string; name: string }[])
const inHand = computed(() => club.ids[props.kind])
const chosen = computed(() => props.id ?? inHand.value)
const thing = computed(() => club.find(props.kind, chosen.value))
const player = computed(() => (props.kind === 'players' ? (thing.value as ClubPlayer | undefined) : undefined))
const table = computed(() => (props.kind === 'tables' ? (thing.value as ClubTable | undefined) : undefined))
const cue = computed(() => (props.kind === 'cues' ? (thing.value as ClubCue | undefined) : undefined))
const isRead = ref(false)
void attempt(async () => {
  await club.loadAll()
  isRead.value = true
}, `Could not load the ${props.kind}`)

const name = ref('')
watch(thing, (t) => (name.value = t?.name ?? ''), { immediate: true })
const rename = () => {
  if (thing.value && name.value.trim() && name.value !== thing.value.name)
    void club.change(props.kind, chosen.value, { name: name.value.trim() })
}

async function create() {
  const given = await askName(`New ${words.value.one}`, '', `What the ${words.value.one} is called`, 80)
  if (!given) return
  await attempt(async () => {
    const made = await club.create(props.kind, given, props.kind === 'players' ? undefined : thing.value)
    await router.push(`/${props.kind}/${made.id}`)
  }, 'Could not create it')
}
const take = () => attempt(() => club.take(props.kind, chosen.value), 'Could not change it')
const putAway = () =>
  attempt(async () => {
    await club.putAway(props.kind, chosen.value)
    await router.push(`/${props.kind}`)
  }, 'Could not archive it')
const groups = { tables: ['cloth', 'cushions', 'balls', 'pockets'], cues: ['cue'] }
</script>

<template>
  <main class="place" :data-testid="`${kind}-place`">
    <h1>{{ words.title }}</h1>
    <div class="beside">
      <nav :aria-label="words.title">
        <ul>
          <li v-for="t in things" :key="t.id">
            <RouterLink :to="`/${kind}/${t.id}`" :aria-current="t.id === chosen ? 'page' : undefined">
              <strong>{{ t.name }}</strong>
              <span class="soft">{{ detailWords(kind, t.id, club) }}{{ t.id === inHand ? ' · in hand' : '' }}</span>
            </RouterLink>
          </li>
        </ul>
        <ElButton data-testid="new-thing" @click="create">New {{ words.one }}</ElButton>
      </nav>
      <section v-if="thing" :aria-label="thing.name">
        <div class="row">
          <ElInput v-model="name" class="name" :maxlength="80" aria-label="Name" data-testid="thing-name" @change="rename" />
          <ElButton v-if="chosen !== inHand" type="primary" data-testid="take-in-hand" @click="take">Take in hand</ElButton>
          <span v-else class="soft">in hand</span>
          <ElButton v-if="chosen !== inHand" data-testid="put-away" @click="putAway">Archive</ElButton>
        </div>
        <template v-if="player">
          <p>
            <RouterLink :to="`/progress/player/${player.id}`" data-testid="to-player-page">Best runs, form and what to work on</RouterLink>
          </p>
          <PlayerFields :player="player" />
          <SkillMeaning :player="player" />
        </template>
        <ConditionsFields
          v-if="table"
          :model-value="table.conditions"
          :of="groups.tables"
          @update:model-value="club.change('tables', table.id, { conditions: $event })"
        />
        <template v-if="cue">
          <label class="row"
            >Tip
            <ElInput
              :model-value="cue.tip"
              class="name"
              :maxlength="80"
              aria-label="Tip"
              placeholder="9.5 mm, medium"
              @change="(tip: string) => club.change('cues', cue!.id, { tip })"
          /></label>
          <ConditionsFields
            :model-value="cue.conditions"
            :of="groups.cues"
            @update:model-value="club.change('cues', cue.id, { conditions: $event })"
          />
        </template>
        <p class="soft">{{ words.about }}</p>
      </section>
      <p v-else-if="isRead" class="soft">This {{ words.one }} no longer exists. Choose another.</p>
      <p v-else class="soft" role="status">Loading …</p>
    </div>
  </main>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: minmax(180px, 260px) minmax(0, 720px);
  gap: var(--space-3) var(--space-6);
  align-items: start;
}
@media (max-width: 760px) {
  .beside {
    grid-template-columns: 1fr;
  }
}
ul {
  list-style: none;
  margin: 0 0 var(--space-3);
  padding: 0;
}
li a {
  display: flex;
  flex-direction: column;
  padding: var(--space-3) var(--space-3);
  border-top: 1px solid var(--edge);
  color: var(--text);
  text-decoration: none;
}
li a[aria-current] {
  box-shadow: inset 3px 0 0 var(--accent);
}
section {
  display: flex;
  flex-direction: column;
  gap: var(--space-4);
}
.name {
  width: min(320px, 100%);
}
</style>
