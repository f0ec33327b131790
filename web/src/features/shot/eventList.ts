import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useShot } from '../../position/shot'
import { mainEvents, numberedEvents } from '../../position/events'

/** What happens, in the list and on the plan: the few events that matter, or all of them. */
export const useEventList = defineStore('eventList', () => {
  const answer = useShot()
  const isAll = ref(false)
  const main = computed(() => (answer.shot ? mainEvents(answer.shot) : []))

  /** What carries a number on the plan: of all, what the white does and the pots, and of several close together the first. */
  const marked = computed(() => {
    const shot = answer.shot
    if (!shot) return []
    if (!isAll.value) return main.value.slice(0, -1).map((e, i) => ({ number: i + 1, x: e.x, y: e.y }))
    const shown: { number: number; x: number; y: number }[] = []
    for (const { number, event: e } of numberedEvents(shot.simulation)) {
      if (e.ball !== 'white' && e.other !== 'white' && e.kind !== 'pot') continue
      if (e.kind !== 'pot' && shown.some((s) => Math.hypot(s.x - e.x, s.y - e.y) < 0.06)) continue
      shown.push({ number, x: e.x, y: e.y })
    }
    return shown.slice(0, 12)
  })

  return { isAll, main, marked }
})
