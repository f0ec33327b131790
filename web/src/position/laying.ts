import { useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, nextTick, ref, watch } from 'vue'
import { ask, client, Problem, type BallEntry, type Schemas } from '../api/client'
import { isRed, kindOf, nameOf } from '../domain/balls'
import { contentOf, copy, plainStroke } from '../domain/strokes'
import { useNotices } from '../lib/notices'
import { detailOf, titleOf } from '../lib/problemWords'
import { planControl } from '../table/camera'
import { useDraft } from './draft'
import { useShot } from './shot'

type Point = { x: number; y: number }
export type TableName = 'empty' | 'opening' | 'lineUp' | 'colours'
/** Kinds of balls in the order in which the rail holds them. */
const kinds = ['white', 'red', 'yellow', 'green', 'brown', 'blue', 'pink', 'black']

/** Laying balls as if by hand: from the rail, several together, a table to begin from, a mirror. */
export const useLaying = defineStore('laying', () => {
  const position = useDraft()
  const shot = useShot()
  const notices = useNotices()

  /** The kind of ball that goes wherever the plan is touched; null: the hands move what lies there. */
  const armed = ref<string | null>(null)
  /** A drag draws a ring around balls. */
  const isLassoing = ref(false)
  /** Balls that were taken together. */
  const group = ref<string[]>([])
  /** A ball on its way from the rail, at a point of the screen. */
  const carried = ref<{ kind: string; x: number; y: number } | null>(null)

  const off = computed(() => {
    const ids = (position.reference?.ballIds ?? []).filter((id) => !position.ball(id))
    return kinds.map((kind) => ({ kind, count: ids.filter((id) => kindOf(id) === kind).length })).filter((k) => k.count > 0)
  })
  const nextOf = (kind: string) => (position.reference?.ballIds ?? []).find((id) => kindOf(id) === kind && !position.ball(id)) ?? null
  /** The ball that is laid next. */
  const next = computed(() => (armed.value ? nextOf(armed.value) : null))

  watch(
    () => position.content.balls.map((b) => b.id).join(),
    () => {
      group.value = group.value.filter((id) => position.ball(id))
      if (armed.value && !nextOf(armed.value)) armed.value = null
    },
  )
  // Another position is laid anew.
  watch(
    () => position.opened,
    () => {
      armed.value = null
      group.value = []
      isLassoing.value = false
    },
  )

  const refused = (e: unknown) => {
    if (!(e instanceof Problem)) throw e
    notices.show({ kind: 'error', text: titleOf(e), detail: detailOf(e) })
  }

  function arm(kind: string) {
    armed.value = armed.value === kind ? null : kind
    isLassoing.value = false
  }
  /** Lays the ball that is armed; the reds one after the other, as long as there are any. */
  async function lay(at: Point, kind = armed.value) {
    const id = kind && nextOf(kind)
    if (!id) return
    // Before the answer, so that quick touches lay one ball each.
    if (armed.value === kind && !isRed(id)) armed.value = null
    try {
      const wasMoved = await position.put(id, at.x, at.y)
      if (wasMoved) notices.show({ kind: 'info', text: `The place is taken: the ${nameOf(id)} is at the nearest free one.` })
    } catch (e) {
      refused(e)
    }
  }
  /** Takes balls off the table; the reds that stay are numbered as they were laid. */
  function takeAway(ids: readonly string[]) {
    position.takeOff(ids)
    group.value = group.value.filter((id) => !ids.includes(id))
  }

  // ---- From the rail onto the plan by a drag ----
  function carry(kind: string, x: number, y: number) {
    carried.value = { kind, x, y }
  }
  useEventListener(window, 'pointermove', (e: PointerEvent) => {
    if (carried.value) carried.value = { ...carried.value, x: e.clientX, y: e.clientY }
  })
  function drop(e: PointerEvent) {
    const held = carried.value
    carried.value = null
    if (!held || e.type === 'pointercancel') return
    const at = planControl.value?.placeUnder(e.clientX, e.clientY)
    if (at) void lay(at, held.kind)
  }
  useEventListener(window, 'pointerup', drop)
  useEventListener(window, 'pointercancel', drop)

  // ---- Several together ----
  async function arrange(how: Schemas['ArrangeHow'], by: Point = { x: 0, y: 0 }) {
    const { balls, conditions } = position.content
    try {
      const laid = await ask(client.POST('/api/arrange', { body: { balls, conditions, together: group.value, how, ...by } }))
      position.moveTo(laid)
    } catch (e) {
      refused(e)
    }
  }
  /** One ball: on its nearest cushion, or straight to its nearest neighbour until they touch. */
  async function arrangeOne(id: string, how: 'cushion' | 'touch') {
    group.value = [id]
    await arrange(how)
    group.value = []
  }
  const moveGroup = (x: number, y: number) => arrange('move', { x, y })

  // ---- A table to begin from ----
  const names: Record<TableName, string> = { empty: 'New position', opening: 'Opening', lineUp: 'Line-up', colours: 'Colours' }
  /** Begins a position of its own that is not saved yet; what was there can be brought back. */
  function begin(which: TableName) {
    const before = position.draft.name
    const balls: BallEntry[] =
      which === 'empty' ? [] : copy(position.reference!.tables.find((t) => t.name === which)?.balls ?? position.reference!.openingRack)
    const back = position.begin(names[which], {
      balls,
      stroke: { ...plainStroke },
      conditions: { ...position.content.conditions },
    })
    notices.show({
      kind: 'info',
      text: 'New position. Not saved yet.',
      action: { label: `Back to “${before}”`, run: back },
    })
    // The white first: nothing can be played without it.
    if (which === 'empty') void nextTick(() => (armed.value = 'white'))
  }

  /** The table in the mirror, with its stroke: one step to undo. */
  async function mirror(axis: Schemas['MirrorAxis']) {
    const content = copy(position.content)
    content.stroke.aim = shot.aim
    try {
      const turned = await ask(client.POST('/api/mirror', { body: { content, axis } }))
      position.replace(contentOf(turned))
    } catch (e) {
      refused(e)
    }
  }

  function letGo() {
    armed.value = null
    isLassoing.value = false
    group.value = []
    carried.value = null
  }

  return {
    armed,
    isLassoing,
    group,
    carried,
    off,
    next,
    arm,
    lay,
    takeAway,
    carry,
    arrange,
    arrangeOne,
    moveGroup,
    begin,
    mirror,
    letGo,
  }
})
