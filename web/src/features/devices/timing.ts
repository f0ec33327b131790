import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ask, client, exchange, type Schemas } from '../../api/client'

/** As many as can be told apart when they lie over one another. */
export const mostCompared = 5

/** Strokes of the cue that were measured, and those that are looked at. */
export const useTiming = defineStore('timing', () => {
  const kept = shallowRef<Schemas['CueStrokes'] | null>(null)
  const chosen = ref<string[]>([])
  const comparison = shallowRef<Schemas['TimingFigure'][]>([])
  const shown = computed(() => chosen.value.flatMap((id) => kept.value?.strokes.filter((s) => s.id === id) ?? []))

  async function load() {
    kept.value = await ask(client.GET('/api/cue/strokes'))
    chosen.value = chosen.value.filter((id) => kept.value!.strokes.some((s) => s.id === id))
    if (!chosen.value.length && kept.value.strokes.length) chosen.value = [kept.value.strokes[0].id]
    await compare()
  }
  async function compare() {
    const ids = [...chosen.value]
    const found = ids.length < 2 ? [] : await ask(client.POST('/api/cue/compare', { body: { ids } }))
    if (ids.join() === chosen.value.join()) comparison.value = found
  }
  async function choose(id: string) {
    const without = chosen.value.filter((c) => c !== id)
    chosen.value = without.length < chosen.value.length ? without : [...chosen.value, id].slice(-mostCompared)
    await compare()
  }
  async function keep(motion: Schemas['CueMotionEntry'], source: Schemas['CueSource']) {
    const made = await ask(client.POST('/api/cue/strokes', { body: { source, motion } }))
    chosen.value = [...chosen.value.slice(1 - mostCompared), made.id]
    await load()
  }
  async function standIn(timing: Schemas['StandInTiming']) {
    await keep(await ask(client.POST('/api/stand-in/cue', { body: { timing, measure: 'travel' } })), 'standIn')
  }
  /** A file of a sensor: CSV, or JSON as in docs/devices.md. */
  async function read(file: File) {
    const text = await file.text()
    const isJson = text.trimStart().startsWith('{')
    const motion = isJson ? text : await exchange('/api/cue/read/csv', text, 'text/csv')
    await keep(JSON.parse(motion) as Schemas['CueMotionEntry'], 'sensor')
  }
  async function remove(stroke: Schemas['CueStrokeResult']) {
    await ask(client.DELETE('/api/cue/strokes/{id}', { params: { path: { id: stroke.id }, query: { version: stroke.version } } }))
    await load()
  }
  return { kept, chosen, shown, comparison, load, choose, keep, standIn, read, remove }
})
