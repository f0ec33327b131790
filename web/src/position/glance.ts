import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { Content } from '../api/client'

/** A stroke that is looked at at the table: what lies there, how it is played, and what it is. */
export type GlanceItem = { title: string; content: Content; note?: string }

/** Strokes to be looked at one by one at the table, handed over by whoever has them; kept for the tab. */
export const useGlance = defineStore('glance', () => {
  const kept = useSessionStorage<{ items: GlanceItem[]; at: number; from: string }>('deep-baize-glance', {
    items: [],
    at: 0,
    from: '/table',
  })
  const items = computed(() => kept.value.items)
  const at = computed(() => Math.min(kept.value.at, Math.max(0, items.value.length - 1)))
  const item = computed(() => items.value[at.value] ?? null)
  /** Where one goes back to. */
  const from = computed(() => kept.value.from)

  const open = (list: GlanceItem[], where: string, first = 0) =>
    (kept.value = { items: JSON.parse(JSON.stringify(list)) as GlanceItem[], at: first, from: where })
  const go = (by: number) => (kept.value = { ...kept.value, at: Math.min(items.value.length - 1, Math.max(0, at.value + by)) })
  return { items, at, item, from, open, go }
})
