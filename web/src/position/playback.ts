import { useMediaQuery, useRafFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Schemas, type Simulation } from '../api/client'
import { turnedOn, unturned, type Turning } from '../table/turning'
import { usePlayer } from './player'
import { useShot } from './shot'
import { useDraft } from './draft'

type At = { x: number; y: number; z?: number; turning?: Turning }

/** How high a ball is off the bed at a moment, m: a throw between two moments; 0 on the bed. */
export function heightAt(flights: readonly Schemas['FlightResult'][], id: string, time: number): number {
  const flight = flights.find((f) => f.ball === id && f.from <= time && time < f.to)
  if (!flight) return 0
  const t = time - flight.from
  return Math.max(0, flight.height + flight.rise * t - (flight.fall * t * t) / 2)
}

/** Where every ball is at a moment of a shot: on its path by time, straight between points; null once it is potted. */
export function ballsAt(
  simulation: Simulation,
  time: number,
  start: Map<string, At>,
  flights: readonly Schemas['FlightResult'][] = [],
): Map<string, At | null> {
  const at = new Map<string, At | null>(start)
  for (const path of simulation.paths) {
    const points = path.points
    const last = points[points.length - 1]
    if (time >= last.time) {
      const final = simulation.finals.find((f) => f.id === path.id)
      at.set(path.id, final?.pocket ? null : last)
      continue
    }
    let lo = 0
    let hi = points.length - 1
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1
      if (points[mid].time <= time) lo = mid
      else hi = mid
    }
    const [a, b] = [points[lo], points[hi]]
    const share = b.time > a.time ? Math.max(0, (time - a.time) / (b.time - a.time)) : 0
    const z = heightAt(flights, path.id, time)
    at.set(path.id, { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y), ...(z > 0 ? { z } : {}) })
  }
  return at
}

/** How often it is worked out how a ball lies turned, s. */
const turningStep = 1 / 90
/** How each ball lies turned from moment to moment, as it rolls, slides and spins. */
export function turningsOf(balls: readonly Schemas['BallTurning'][]): Map<string, Turning[]> {
  const turnings = new Map<string, Turning[]>()
  for (const { ball, spans } of balls) {
    const list: Turning[] = [unturned]
    let [turning, at] = [unturned, 0]
    for (const { from, to, start, end } of spans) {
      let t = from
      while (t < to - 1e-9) {
        const next = Math.min(to, Math.floor(t / turningStep + 1 + 1e-6) * turningStep)
        // Its angular velocity changes evenly: the middle one stands for so short a time.
        const share = to > from ? ((t + next) / 2 - from) / (to - from) : 0
        const w = [0, 1, 2].map((i) => start[i] + share * (end[i] - start[i])) as [number, number, number]
        turning = turnedOn(turning, w, next - t)
        t = next
        for (at = list.length; at * turningStep <= t + 1e-9; at++) list.push(turning)
      }
    }
    turnings.set(ball, list)
  }
  return turnings
}

/** How far the cue is back from the white, m, when the stroke is still to come for so many of its seconds. */
const cueSeconds = 0.62
export function cueBack(left: number): number {
  const t = 1 - left / cueSeconds
  const far = 0.17
  return t < 0.6 ? 0.02 + (far - 0.02) * Math.sin(((t / 0.6) * Math.PI) / 2) : far * (1 - ((t - 0.6) / 0.4) ** 2)
}

/** The shot played back: time, speed, and where the balls are. */
export const usePlayback = defineStore('playback', () => {
  const answer = useShot()
  const position = useDraft()
  const time = ref(0)
  const speed = ref(1)
  const isPlaying = ref(false)
  const players = usePlayer()
  /** Of the cue's stroke before the white moves, s that are left. */
  const lead = ref(0)
  const turnings = shallowRef(new Map<string, Turning[]>())
  const isCalm = useMediaQuery('(prefers-reduced-motion: reduce)')
  const duration = computed(() => answer.shot?.simulation.duration ?? 0)

  const raf = useRafFn(
    ({ delta }) => {
      if (!isPlaying.value) return
      if (lead.value > 0) return void (lead.value = Math.max(0, lead.value - (Math.min(delta, 50) / 1000) * speed.value))
      time.value = Math.min(duration.value, time.value + (delta / 1000) * speed.value)
      if (time.value >= duration.value) pause()
    },
    { immediate: false },
  )

  function play(at = speed.value) {
    speed.value = at
    if (time.value >= duration.value) time.value = 0
    if (time.value === 0 && !isCalm.value) lead.value = cueSeconds
    void readTurnings()
    isPlaying.value = true
    raf.resume()
  }

  function pause() {
    isPlaying.value = false
    lead.value = 0
    raf.pause()
  }

  function rewind() {
    pause()
    time.value = 0
  }

  /** The marks on the balls turn where the server says how; without an answer they are as they lie. */
  async function readTurnings() {
    const about = answer.shot
    if (turnings.value.size) return
    try {
      const found = await ask(client.POST('/api/shot/turning', { body: { content: answer.settled, player: players.player } }))
      if (answer.shot === about) turnings.value = turningsOf(found)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
    }
  }
  watch(
    () => answer.shot,
    () => (turnings.value = new Map()),
  )
  const cue = computed(() =>
    lead.value > 0 ? { back: cueBack(lead.value), side: position.stroke.side * position.reference!.millimetresPerTip } : null,
  )
  /** How far the marks have turned by now. */
  function turned(balls: Map<string, At | null>) {
    const index = Math.round(time.value / turningStep)
    for (const [id, at] of balls) {
      const list = turnings.value.get(id)
      if (at && list && time.value > 0) balls.set(id, { x: at.x, y: at.y, z: at.z, turning: list[Math.min(index, list.length - 1)] })
    }
    return balls
  }

  // A changed shot starts from its beginning.
  watch(() => answer.shot, rewind)

  const balls = computed(() => {
    const start = new Map(position.content.balls.map((b) => [b.id, { x: b.x, y: b.y }]))
    return answer.shot && time.value > 0
      ? turned(ballsAt(answer.shot.simulation, time.value, start, answer.shot.flights))
      : new Map<string, At | null>(start)
  })

  return { time, speed, isPlaying, duration, balls, cue, play, pause, rewind }
})
