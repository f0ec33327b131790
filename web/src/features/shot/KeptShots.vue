<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { plainStroke } from '../../domain/strokes'
import { strokeWords } from '../../domain/words'
import { useShot } from '../../position/shot'
import CompareButton from '../../position/CompareButton.vue'
import LineButton from '../../ui/LineButton.vue'
import { useKeptShots, type KeptShot } from './keptShots'

/** One line to remember on the shot, the card, and the shots kept with this position. */
const kept = useKeptShots()
const router = useRouter()
const answer = useShot()
/** The lines as they are being written. */
const lines = ref<Record<string, string>>({})
watch(
  () => kept.shots,
  (shots, before) => {
    // A line that is being written stays as it is.
    const written = (s: KeptShot) => {
      const [typed, was] = [lines.value[s.id], before?.find((b) => b.id === s.id)?.note]
      return typed !== undefined && was !== undefined && typed !== was ? typed : s.note
    }
    lines.value = Object.fromEntries(shots.map((s) => [s.id, written(s)]))
  },
  { immediate: true },
)
const words = (shot: KeptShot) => strokeWords({ ...plainStroke, ...shot.stroke, pot: null })
</script>

<template>
  <div class="kept" data-testid="kept-shots">
    <form @submit.prevent="kept.keep()">
      <ElInput
        v-model="kept.note"
        maxlength="300"
        placeholder="One line to remember on the shot"
        aria-label="One line to remember on the shot"
        data-testid="note"
      />
      <div class="row">
        <ElButton type="primary" native-type="submit" :disabled="kept.busy || !answer.shot" data-testid="keep-shot"
          >Keep this shot</ElButton
        >
        <ElButton :disabled="kept.busy || !answer.shot" data-testid="card-pdf" @click="kept.cardAs('pdf')">Card as PDF</ElButton>
        <ElButton :disabled="kept.busy || !answer.shot" @click="kept.cardAs('svg')">Card as SVG</ElButton>
      </div>
    </form>
    <p v-if="!kept.shots.length" class="soft">
      No kept shots yet. Set one up, write the one thing to think of, and keep it with its balls and stroke.
    </p>
    <ol v-else>
      <li v-for="s in kept.shots" :key="s.id" data-testid="kept-shot">
        <LineButton class="name" @click="kept.open(s)"
          >{{ s.name }}<span v-if="!s.name.includes(words(s))" class="soft">, {{ words(s) }}</span></LineButton
        >
        <div class="row line">
          <ElInput
            v-model="lines[s.id]"
            maxlength="300"
            placeholder="no line yet"
            :aria-label="`Line on ${s.name}`"
            @change="kept.rewrite(s, $event)"
          />
          <CompareButton :stroke="s.stroke" :what="s.name" />
          <ElButton :disabled="kept.busy" :aria-label="`Practise ${s.name}`" @click="kept.practiseShot(s)">Practise</ElButton>
          <ElButton
            :disabled="kept.busy"
            :aria-label="`${s.name} at a glance`"
            data-testid="kept-glance"
            @click="kept.glances(s, router.currentRoute.value.fullPath, () => router.push('/glance'))"
            >At a glance</ElButton
          >
          <ElButton :disabled="kept.busy" :aria-label="`Delete ${s.name}`" @click="kept.remove(s)">Delete</ElButton>
        </div>
      </li>
    </ol>
  </div>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
  margin-bottom: var(--space-3);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: var(--space-2) 0;
  border-top: 1px solid var(--edge);
}
.line {
  flex-wrap: nowrap;
}
</style>
