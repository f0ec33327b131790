<script setup lang="ts">
import { watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import FrameList from './FrameList.vue'
import FrameRecord from './FrameRecord.vue'
import { useRecords } from './records'

/** Frames written down shot by shot: the list, or the one that the address names. */
const records = useRecords()
const route = useRoute()
const router = useRouter()
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
</script>

<template>
  <main class="place frames">
    <h1>{{ records.record ? records.record.title : 'Frames' }}</h1>
    <FrameRecord v-if="records.record" :record="records.record" />
    <FrameList v-else />
  </main>
</template>
