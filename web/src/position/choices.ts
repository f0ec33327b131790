import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { Stroke } from '../api/client'
import { copy, isSameStroke } from '../domain/strokes'
import { useDraft } from './draft'
import { useShot } from './shot'

/** Most strokes that are compared at once. */
export const mostChoices = 4

/** My own strokes beside one another: they stay with the table that they were set up on. Any list of strokes may add one. */
export const useChoices = defineStore('choices', () => {
  const position = useDraft()
  const shot = useShot()

  const table = computed(() => JSON.stringify(position.tableAsked))
  const kept = useSessionStorage<{ table: string; strokes: Stroke[] }>('deep-baize-choices', { table: '', strokes: [] })
  // On another table they are other strokes; undo brings the table back, and them with it.
  const choices = computed(() => (kept.value.table === table.value ? kept.value.strokes : []))
  const keep = (strokes: Stroke[]) => (kept.value = { table: table.value, strokes })

  /** The stroke that is set up; one that is aimed freely keeps its aim. */
  const present = (): Stroke => ({ ...copy(position.stroke), aim: shot.aim })
  const isFull = computed(() => choices.value.length >= mostChoices)
  const has = (stroke: Stroke) => choices.value.some((s) => isSameStroke(s, stroke))
  const isLaid = computed(() => has(present()))

  /** Adds a stroke, unless it is there or there is no room; says whether it is there now. */
  function add(stroke: Stroke): boolean {
    if (has(stroke)) return true
    if (isFull.value) return false
    keep([...choices.value, copy(stroke)])
    return true
  }
  const lay = () => add(present())
  const remove = (which: number) => keep(choices.value.filter((_, i) => i !== which))
  const clear = () => keep([])

  return { choices, isLaid, isFull, has, add, lay, remove, clear }
})
