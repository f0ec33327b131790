import { useRafFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Schemas, Simulation } from '../api/client'
import { useShot } from './shot'
import { useDraft } from './draft'

type At = { x: number; y: number; z?: number }

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

/** The shot played back: time, speed, and where the balls are. */
export const usePlayback = defineStore('playback', () => {
  const answer = useShot()
  const position = useDraft()
  const time = ref(0)
  const speed = ref(1)
  const isPlaying = ref(false)
  const duration = computed(() => answer.shot?.simulation.duration ?? 0)

  const raf = useRafFn(
    ({ delta }) => {
      if (!isPlaying.value) return
      time.value = Math.min(duration.value, time.value + (delta / 1000) * speed.value)
      if (time.value >= duration.value) pause()
    },
    { immediate: false },
  )

  function play(at = speed.value) {
    speed.value = at
    if (time.value >= duration.value) time.value = 0
    isPlaying.value = true
    raf.resume()
  }

  function pause() {
    isPlaying.value = false
    raf.pause()
  }

  function rewind() {
    pause()
    time.value = 0
  }

  // A changed shot starts from its beginning.
  watch(() => answer.shot, rewind)

  const balls = computed(() => {
    const start = new Map(position.content.balls.map((b) => [b.id, { x: b.x, y: b.y }]))
    return answer.shot && time.value > 0
      ? ballsAt(answer.shot.simulation, time.value, start, answer.shot.flights)
      : new Map<string, At | null>(start)
  })

  return { time, speed, isPlaying, duration, balls, play, pause, rewind }
})
