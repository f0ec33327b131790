import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { ask, client, type Schemas } from '../../api/client'

type Place = { u: number; v: number }
export type Mark = Place & { name: string }
type Result = Schemas['PictureResult']

/** Points that can be marked: the four that are asked for, and more, which make it more exact. */
export const corners = ['baulk-yellow', 'top-yellow', 'top-green', 'baulk-green']
export const spots = ['brown', 'blue', 'pink', 'black', 'yellow', 'green']
export const pointNames: Record<string, string> = {
  'baulk-yellow': 'yellow’s side, baulk',
  'top-yellow': 'yellow’s side, top',
  'top-green': 'green’s side, top',
  'baulk-green': 'green’s side, baulk',
  ...Object.fromEntries(spots.map((s) => [s, `the ${s}’s spot`])),
}

/** A picture that stays on this device: its marks and taps alone are sent, and what they say of the table comes back. */
export function usePhoto() {
  const address = ref('')
  const size = ref({ width: 0, height: 0 })
  const marks = ref<Mark[]>([])
  const taps = ref<Mark[]>([])
  const result = shallowRef<Result | null>(null)
  /** The lens of this device, once a picture with many marks has told it: by the picture's shape. */
  const lenses = useLocalStorage<Record<string, Schemas['Lens']>>('deep-baize-lens', {})
  const shape = computed(() => `${Math.max(size.value.width, size.value.height)}×${Math.min(size.value.width, size.value.height)}`)

  async function take(file: File) {
    if (address.value) URL.revokeObjectURL(address.value)
    address.value = URL.createObjectURL(file)
    const image = new Image()
    image.src = address.value
    try {
      await image.decode()
    } catch {
      URL.revokeObjectURL(address.value)
      address.value = ''
      throw new Error('This file cannot be shown as a picture.')
    }
    const { naturalWidth: width, naturalHeight: height } = image
    size.value = { width, height }
    // Near the corners of the picture, to be dragged on to those of the table.
    const at = (u: number, v: number) => ({ u: u * width, v: v * height })
    marks.value = [at(0.12, 0.8), at(0.88, 0.8), at(0.75, 0.25), at(0.25, 0.25)].map((p, i) => ({ name: corners[i], ...p }))
    taps.value = []
    result.value = null
  }

  function put(list: Mark[], name: string, at: Place) {
    const there = list.find((m) => m.name === name)
    if (there) Object.assign(there, at)
    else list.push({ name, ...at })
    result.value = null
  }
  const mark = (name: string, at: Place) => put(marks.value, name, at)
  const tap = (name: string, at: Place) => put(taps.value, name, at)
  function remove(name: string) {
    taps.value = taps.value.filter((t) => t.name !== name)
    result.value = null
  }
  function unmark(name: string) {
    marks.value = marks.value.filter((m) => m.name !== name)
    result.value = null
  }

  async function read() {
    const { width, height } = size.value
    const body = { width, height, marks: marks.value, balls: taps.value, lens: lenses.value[shape.value] ?? null }
    result.value = await ask(client.POST('/api/photo', { body }))
    // Enough marks to tell the lens by: the next picture needs only four.
    const enough = 7
    if (marks.value.length >= enough) lenses.value = { ...lenses.value, [shape.value]: result.value.lens }
  }

  return { address, size, marks, taps, result, hasLens: computed(() => shape.value in lenses.value), take, mark, tap, remove, unmark, read }
}
