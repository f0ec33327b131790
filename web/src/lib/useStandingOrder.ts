import { computed, ref, shallowRef, watch, type Ref } from 'vue'

/**
 * A list that comes in piece by piece and better ordered each time. While it is held (pointed at, or one of it chosen) nothing moves under
 * the finger: lines keep their places and only their figures change, new ones come below, and a better one is announced.
 * @param told The list as told, the best first.
 * @param idOf Names a line for as long as the list lives.
 */
export function useStandingOrder<T>(told: () => readonly T[], idOf: (line: T) => string) {
  const isHeld = ref(false)
  const order: Ref<string[]> = shallowRef([])
  /** The line that is chosen; it stays though it is no longer told. */
  const chosen = ref('')
  const gone = shallowRef<T | null>(null)

  const isStanding = computed(() => isHeld.value || chosen.value !== '')
  watch(
    told,
    (now, before) => {
      const ids = now.map(idOf)
      const kept = before?.find((line) => idOf(line) === chosen.value) ?? gone.value
      gone.value = chosen.value && !ids.includes(chosen.value) && kept && idOf(kept) === chosen.value ? kept : null
      order.value = isStanding.value ? [...order.value.filter((id) => ids.includes(id) || id === chosen.value), ...ids] : ids
      order.value = [...new Set(order.value)]
    },
    { immediate: true },
  )
  watch(isStanding, (is) => {
    if (!is) order.value = told().map(idOf)
  })

  const lines = computed(() => {
    const byId = new Map(told().map((line) => [idOf(line), line]))
    if (gone.value) byId.set(idOf(gone.value), gone.value)
    return order.value.map((id) => byId.get(id)).filter((line): line is T => line !== undefined)
  })
  /** A better one has been told than the one that stands first. */
  const better = computed(() => {
    const best = told()[0]
    return isStanding.value && best && lines.value[0] && idOf(best) !== idOf(lines.value[0]) ? best : null
  })

  function choose(id: string) {
    chosen.value = id
    if (gone.value && idOf(gone.value) !== id) gone.value = null
  }
  /** Takes the order as it is told now. */
  function settle() {
    chosen.value = ''
    gone.value = null
    isHeld.value = false
    order.value = told().map(idOf)
  }

  return { lines, better, isHeld, chosen, choose, settle }
}
