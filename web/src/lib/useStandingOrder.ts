import { computed, ref, shallowRef, watch } from 'vue'

/**
 * A list that comes in piece by piece and better ordered each time. While it is held (pointed at, or one of it chosen) nothing moves under
 * the finger: lines keep their places and only their figures change, new ones come below, and a better one is announced. The line that is
 * chosen stays what it is: another stroke for the same idea, or none at all, does not take its place.
 * @param told The list as told, the best first.
 * @param idOf Names a line for as long as the list lives.
 * @param strokeOf What a line is played with: with the same stroke it may be told anew.
 */
export function useStandingOrder<T>(told: () => readonly T[], idOf: (line: T) => string, strokeOf: (line: T) => unknown) {
  const isHeld = ref(false)
  const order = shallowRef<string[]>([])
  const chosen = ref('')
  /** The line that is chosen, as it was then. */
  const chosenLine = shallowRef<T | null>(null)
  const isSame = (a: T, b: T) => JSON.stringify(strokeOf(a)) === JSON.stringify(strokeOf(b))

  const isStanding = computed(() => isHeld.value || chosen.value !== '')
  watch(
    told,
    (now) => {
      const ids = now.map(idOf)
      const anew = now.find((line) => idOf(line) === chosen.value)
      if (anew && chosenLine.value && isSame(anew, chosenLine.value)) chosenLine.value = anew
      const standing = isStanding.value ? order.value.filter((id) => ids.includes(id) || id === chosen.value) : []
      order.value = [...new Set([...standing, ...ids])]
    },
    { immediate: true },
  )
  watch(isStanding, (is) => {
    if (!is) order.value = told().map(idOf)
  })

  const lines = computed(() => {
    const byId = new Map(told().map((line) => [idOf(line), line]))
    if (chosenLine.value) byId.set(chosen.value, chosenLine.value)
    return order.value.map((id) => byId.get(id)).filter((line): line is T => line !== undefined)
  })
  /** What has been told as the best, if that is not what stands first. */
  const better = computed(() => {
    const best = told()[0]
    const first = lines.value[0]
    return isStanding.value && best && first && (idOf(best) !== idOf(first) || !isSame(best, first)) ? best : null
  })

  function choose(id: string) {
    chosenLine.value = lines.value.find((line) => idOf(line) === id) ?? null
    chosen.value = chosenLine.value ? id : ''
  }
  /** Takes the list as it is told now. */
  function settle() {
    chosen.value = ''
    chosenLine.value = null
    isHeld.value = false
    order.value = told().map(idOf)
  }

  return { lines, better, isHeld, chosen, choose, settle }
}
