import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { findBall } from './findBall'
import type { Place } from './pixels'
import { traceEdge } from './traceEdge'

/** How large a ball is drawn at a place, px. */
const expectedAt = (size: Schemas['BallSize'], { u, v }: Place) => size.at + size.byU * u + size.byV * v
/** By how much a ball that stands on its spot may be beside it, over its radius: two millimetres (common practice, no source). */
const besideSpot = 2 / 26.25

export type Mark = Place & { name: string }
/** A ball that was touched: with its radius and error, px, where its middle was found in the picture. */
export type Touched = Mark & { radius?: number; error?: number }
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
  const taps = ref<Touched[]>([])
  /** Colours of which somebody said that they stand on their spots: they are marks too. */
  const standing = ref<string[]>([])
  let image: HTMLImageElement | null = null
  let ballSize: Schemas['BallSize'] | null = null
  let straight: Place[][] = []
  const result = shallowRef<Result | null>(null)
  /** The lens of this device, once a picture with many marks has told it: by the picture's shape. */
  const lenses = useLocalStorage<Record<string, Schemas['Lens']>>('deep-baize-lens', {})
  const shape = computed(() => `${Math.max(size.value.width, size.value.height)}×${Math.min(size.value.width, size.value.height)}`)

  async function take(file: File) {
    if (address.value) URL.revokeObjectURL(address.value)
    address.value = URL.createObjectURL(file)
    image = new Image()
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
    standing.value = []
    ballSize = null
    straight = []
    result.value = null
  }

  /** Part of the picture: at least a pixel, and none beyond it. */
  function cut(left: number, top: number, width: number, height: number) {
    const canvas = document.createElement('canvas')
    ;[canvas.width, canvas.height] = [width, height]
    const drawing = canvas.getContext('2d')
    if (!drawing || !image) return null
    drawing.drawImage(image, left, top, width, height, 0, 0, width, height)
    return drawing.getImageData(0, 0, width, height)
  }

  /** The cushions' edges between the marks at the corners: how they are bent tells of the lens. */
  function trace() {
    const pixels = cut(0, 0, size.value.width, size.value.height)
    const at = corners.map((c) => marks.value.find((m) => m.name === c)!)
    straight = pixels ? at.map((from, i) => traceEdge(pixels, from, at[(i + 1) % at.length])).filter((edge) => edge !== null) : []
  }

  function put(list: Touched[], name: string, at: Omit<Touched, 'name'>) {
    const there = list.find((m) => m.name === name)
    if (there) Object.assign(there, at)
    else list.push({ name, ...at })
    result.value = null
  }
  const mark = (name: string, at: Place) => put(marks.value, name, at)
  const tap = (name: string, at: Place) => put(taps.value, name, { ...at, radius: undefined, error: undefined })
  function remove(name: string) {
    taps.value = taps.value.filter((t) => t.name !== name)
    standing.value = standing.value.filter((s) => s !== name)
    result.value = null
  }

  /** The thumb is lifted: the ball's middle is looked for in the picture around it. */
  function settle(name: string) {
    const touched = taps.value.find((t) => t.name === name)
    if (!touched || !ballSize) return
    const expected = expectedAt(ballSize, touched)
    const half = Math.ceil(3 * expected + 6)
    const [left, top] = [Math.round(touched.u) - half, Math.round(touched.v) - half]
    const pixels = cut(left, top, 2 * half, 2 * half)
    if (!pixels) return
    const found = findBall(pixels, { u: touched.u - left, v: touched.v - top }, expected)
    if (found) put(taps.value, name, { ...found, u: found.u + left, v: found.v + top })
  }
  function unmark(name: string) {
    marks.value = marks.value.filter((m) => m.name !== name)
    result.value = null
  }

  async function send(balls: Touched[]) {
    const { width, height } = size.value
    const onSpots = taps.value
      .filter((t) => standing.value.includes(t.name) && ballSize)
      .map((t) => ({ ...t, name: `${t.name}-ball`, error: Math.hypot(t.error ?? width / 800, besideSpot * expectedAt(ballSize!, t)) }))
    const plain = ({ name, u, v, error }: Touched) => ({ name, u, v, error: error ?? null })
    const all = [...marks.value, ...onSpots]
    const body = { width, height, marks: all.map(plain), balls: balls.map(plain), lens: lenses.value[shape.value] ?? null, straight }
    const answer = await ask(client.POST('/api/photo', { body }))
    ballSize = answer.ballSize
    // Enough marks to tell the lens by: the next picture needs only four.
    const enough = 7
    if (all.length >= enough) lenses.value = { ...lenses.value, [shape.value]: answer.lens }
    return answer
  }
  /** Whether the marks fit a table, and how large a ball is where. */
  async function checkMarks() {
    trace()
    await send([])
  }
  async function read() {
    result.value = await send(taps.value)
  }

  /** It stands on its spot, or it does not: then it is read anew. */
  async function setStanding(names: string[]) {
    standing.value = names
    await read()
  }

  const hasLens = computed(() => shape.value in lenses.value)
  return { address, size, marks, taps, standing, result, hasLens, take, mark, tap, settle, remove, unmark, checkMarks, read, setStanding }
}
