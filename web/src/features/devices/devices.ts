import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { copy } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useShot } from '../../position/shot'
import type { CameraStroke } from './words'

type State = Schemas['CameraState']
/** Strokes that are listed. */
const most = 100

/** Cameras over the table, and the one that is followed. */
export const useDevices = defineStore('devices', () => {
  const position = useDraft()
  const shot = useShot()
  const cameras = shallowRef<Schemas['CameraResult'][] | null>(null)
  const camera = shallowRef<Schemas['CameraResult'] | null>(null)
  const byId = shallowRef(new Map<string, CameraStroke>())
  const strokes = computed(() => [...byId.value.values()].sort((a, b) => (a.at < b.at ? 1 : -1)).slice(0, most))
  /** The newest that stands: drawn as it ran. */
  const newest = computed(() => strokes.value.find((s) => !s.isDropped) ?? null)
  /** Followed last on this device. */
  const last = useLocalStorage('deep-baize-camera', '')
  /** The session and the frame that were open last on this device. */
  const session = useLocalStorage('deep-baize-session', '')
  const frame = useLocalStorage('deep-baize-frame', '')

  let stream: EventSource | null = null
  function leave() {
    stream?.close()
    stream = null
  }
  function take(state: State) {
    if (camera.value?.id !== state.camera.id) return
    camera.value = state.camera
    const known = new Map(byId.value)
    for (const s of state.strokes) known.set(s.id, s)
    byId.value = known
  }
  function follow(one: Schemas['CameraResult']) {
    leave()
    camera.value = one
    byId.value = new Map()
    last.value = one.id
    if (typeof EventSource === 'undefined') return
    const mine = (stream = new EventSource(`/api/camera/${one.id}/live`))
    mine.addEventListener('camera', (e) => take(JSON.parse((e as MessageEvent<string>).data) as State))
    mine.addEventListener('error', () => {
      // A browser does not ask again where it was refused; one that is gone is not asked for.
      if (mine.readyState === EventSource.CLOSED && stream === mine) setTimeout(() => void load(), 3000)
    })
  }

  async function load() {
    cameras.value = await ask(client.GET('/api/camera'))
    const wanted = cameras.value.find((c) => c.id === last.value) ?? cameras.value[0]
    if (wanted) follow(wanted)
    else {
      leave()
      camera.value = null
    }
  }

  /** The goal that is meant by a word; none, if nothing of the kind is open. */
  function goalOf(kind: Schemas['CameraGoalKind']): Schemas['CameraGoalEntry'] {
    const id = kind === 'session' ? session.value : kind === 'frame' ? frame.value : ''
    return id ? { kind, id } : { kind: 'none', id: null }
  }

  async function connect(name: string) {
    const made = await ask(client.POST('/api/camera', { body: { name, goal: goalOf('none') } }))
    last.value = made.id
    await load()
  }
  async function save(change: { name?: string; goal?: Schemas['CameraGoalKind'] }) {
    const { id, name, goal } = camera.value!
    const body = { name: change.name ?? name, goal: change.goal ? goalOf(change.goal) : goal }
    camera.value = await ask(client.PUT('/api/camera/{id}', { params: { path: { id } }, body }))
  }
  async function remove(id: string) {
    await ask(client.DELETE('/api/camera/{id}', { params: { path: { id } } }))
    await load()
  }

  /** A made-up camera over a made-up table: two players play a frame, or somebody the stroke that is set up. */
  async function startStandIn(plays: Schemas['StandInPlays'], goal: Schemas['CameraGoalKind']) {
    const strike = plays === 'stroke' ? shot.shot?.strike : null
    const made = await ask(
      client.POST('/api/stand-in/camera', {
        body: {
          plays,
          balls: plays === 'stroke' ? copy(position.content.balls) : [],
          strike: strike ?? null,
          times: 5,
          haste: 1,
          goal: goalOf(goal),
        },
      }),
    )
    last.value = made.id
    await load()
  }
  async function stopStandIn() {
    await ask(client.POST('/api/stand-in/camera/{id}/stop', { params: { path: { id: camera.value!.id } } }))
  }

  const path = (stroke: string) => ({ path: { id: camera.value!.id, stroke } })
  const put = (s: CameraStroke) => (byId.value = new Map(byId.value).set(s.id, s))
  /** That was no stroke. */
  async function drop(stroke: string) {
    put(await ask(client.POST('/api/camera/{id}/strokes/{stroke}/drop', { params: path(stroke) })))
  }
  async function correct(stroke: string, right: Schemas['StrokeCorrection']) {
    put(await ask(client.PUT('/api/camera/{id}/strokes/{stroke}', { params: path(stroke), body: right })))
  }

  /** Lays out on the table what the camera sees. */
  const layOut = () => position.replace({ ...position.content, balls: copy(camera.value!.balls) })

  return {
    cameras,
    camera,
    strokes,
    newest,
    session,
    frame,
    load,
    follow,
    leave,
    connect,
    save,
    remove,
    startStandIn,
    stopStandIn,
    drop,
    correct,
    layOut,
  }
})
