// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { Simulation } from '../api/client'
import { listedEvents, numberedEvents } from './events'
import { ballsAt, heightAt } from './playback'

const simulation: Simulation = {
  finals: [
    { id: 'white', x: 2, y: 1, pocket: null },
    { id: 'red-1', x: 3.57, y: 0, pocket: 'yellow-top' },
  ],
  events: [
    { time: 0, kind: 'strike', ball: 'white', other: null, x: 1, y: 1, pocket: null, cushion: null },
    { time: 1, kind: 'ball', ball: 'white', other: 'red-1', x: 2, y: 1, pocket: null, cushion: null },
    { time: 1, kind: 'stop', ball: 'white', other: null, x: 2, y: 1, pocket: null, cushion: null },
    { time: 1.2, kind: 'roll', ball: 'red-1', other: null, x: 2.5, y: 0.8, pocket: null, cushion: null },
    { time: 3, kind: 'pot', ball: 'red-1', other: null, x: 3.57, y: 0, pocket: 'yellow-top', cushion: null },
  ],
  paths: [
    {
      id: 'white',
      points: [
        { time: 0, x: 1, y: 1 },
        { time: 0.4, x: 1.6, y: 1 },
        { time: 1, x: 2, y: 1 },
      ],
    },
    {
      id: 'red-1',
      points: [
        { time: 1, x: 2.05, y: 1 },
        { time: 3, x: 3.57, y: 0 },
      ],
    },
  ],
  duration: 3,
}
const start = new Map([
  ['white', { x: 1, y: 1 }],
  ['red-1', { x: 2.05, y: 1 }],
  ['black', { x: 3.2, y: 0.9 }],
])

describe('playback', () => {
  it('parts a ball that is off the bed from its shadow, as high as a throw has it', () => {
    // 1 m/s upwards: back after 2/g seconds, at the highest 1/2g after half of that.
    const flights = [{ ball: 'white', from: 0.2, to: 0.2 + 2 / 9.81, height: 0, rise: 1, fall: 9.81 }]
    expect(heightAt(flights, 'white', 0.1)).toBe(0)
    expect(heightAt(flights, 'white', 0.2 + 1 / 9.81)).toBeCloseTo(1 / (2 * 9.81), 9)
    expect(heightAt(flights, 'red-1', 0.25)).toBe(0)
    expect(ballsAt(simulation, 0.25, start, flights).get('white')!.z).toBeGreaterThan(0.03)
    expect(ballsAt(simulation, 0.9, start, flights).get('white')).not.toHaveProperty('z')
  })

  it('finds every ball between two points of its path', () => {
    const at = ballsAt(simulation, 0.2, start)
    expect(at.get('white')!.x).toBeCloseTo(1.3)
    expect(at.get('red-1')).toEqual({ x: 2.05, y: 1 })
    expect(at.get('black')).toEqual({ x: 3.2, y: 0.9 })
  })

  it('takes a potted ball off and leaves a stopped one where it is', () => {
    const at = ballsAt(simulation, 3, start)
    expect(at.get('red-1')).toBeNull()
    expect(at.get('white')).toMatchObject({ x: 2, y: 1 })
  })

  it('numbers contacts and pots only, and lists the white’s own moments beside them', () => {
    expect(numberedEvents(simulation).map((e) => [e.number, e.event.kind])).toEqual([
      [1, 'ball'],
      [2, 'pot'],
    ])
    expect(listedEvents(simulation).list.map((e) => e.event.kind)).toEqual(['strike', 'ball', 'stop', 'pot'])
  })

  it('tells a push as one contact, and a second meeting of the same balls as another', () => {
    const contact = (time: number, ball: string, other: string) => ({ ...simulation.events[1], time, ball, other })
    const pushed = {
      ...simulation,
      events: [
        contact(1, 'white', 'red-1'),
        contact(1.05, 'red-1', 'white'),
        contact(1.1, 'white', 'red-1'),
        contact(1.1, 'white', 'red-2'),
        contact(2, 'white', 'red-1'),
      ],
    }
    expect(numberedEvents(pushed).map((e) => [e.number, e.event.time, e.event.other])).toEqual([
      [1, 1, 'red-1'],
      [2, 1.1, 'red-2'],
      [3, 2, 'red-1'],
    ])
    expect(listedEvents(pushed).list).toHaveLength(3)
  })
})
