import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type SavedPosition } from '../../api/client'
import { useLatest } from '../../lib/useLatest'

/** The positions that are kept, or those in the bin, as the words that are typed find them. */
export const useLibrary = defineStore('library', () => {
  const search = ref('')
  const bin = ref(false)
  const positions = shallowRef<SavedPosition[] | null>(null)
  const trouble = ref('')

  /** In the order they were asked: the answer to an older word never replaces that to a newer. */
  const load = useLatest(async () => {
    try {
      positions.value = await ask(client.GET('/api/positions', { params: { query: { search: search.value, deleted: bin.value } } }))
      trouble.value = ''
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      trouble.value = `${e.message} ${e.detail}`
    }
  })
  watch(search, useDebounceFn(() => void load(), 150))
  watch(bin, () => void load())

  return { search, bin, positions, trouble, load }
})
