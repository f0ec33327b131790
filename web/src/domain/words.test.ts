// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { cut } from './cut.fixture'
import {
  arrivalWords,
  cushionCountWords,
  kindWords,
  reachNeedWords,
  reachWords,
  strokeWords,
  tipWords,
  warningWords,
  whereWords,
} from './words'

describe('the words of the trade', () => {
  it('say where the tip goes', () => {
    expect(tipWords(0, 0)).toBe('centre ball')
    expect(tipWords(0.1, -0.5)).toBe('half a tip below, a touch of right')
    expect(tipWords(-1, 0)).toBe('one tip of left')
    expect(tipWords(0.25, 1.5)).toBe('one and a half tips above, a quarter of a tip of right')
  })

  it('say the whole stroke in a line', () => {
    expect(strokeWords({ aim: 0, side: 0.1, height: -0.5, pace: 4, elevation: 0, pot: null, free: false })).toBe(
      'half a tip below, a touch of right, pace 4',
    )
    expect(strokeWords({ aim: 0, side: 0, height: 0, pace: 4.5, elevation: 12, pot: null, free: false })).toBe(
      'centre ball, pace 4.5, butt raised 12°',
    )
  })

  it('say how the white arrives', () => {
    const arrival = { speed: 1.5, follow: 0.4, sideSpin: 0, squirtDegrees: 0, swerveDegrees: 0, throwDegrees: 0, kind: 'follow' as const }
    expect(arrivalWords(arrival)).toBe('follow 40 %, 1.50 m/s')
    expect(arrivalWords({ ...arrival, follow: 0.01, kind: 'stun' })).toContain('stun')
    expect(arrivalWords({ ...arrival, follow: -0.8, kind: 'screw' })).toContain('screw 80 %')
    expect(arrivalWords({ ...arrival, follow: 1 })).toContain('rolling')
  })

  it('warn', () => {
    expect(warningWords({ kind: 'closePass', ball: 'red-4', amount: 0.0034, pocket: null })).toBe('passes red 4 by 3.4 mm')
    expect(warningWords({ kind: 'raisedButt', ball: null, amount: 0.42, pocket: null })).toContain('42 % of the screw')
    expect(warningWords({ kind: 'jump', ball: 'pink', amount: 0.05, pocket: null })).toBe(
      'the white jumps over the pink, or part of it: a foul',
    )
    expect(warningWords({ kind: 'offTable', ball: 'white', amount: 0, pocket: null })).toContain('leaves the table')
    expect(warningWords({ kind: 'kiss', ball: 'blue', amount: 0, pocket: null })).toBe('kiss on the blue')
    expect(warningWords({ kind: 'snookered', ball: 'red-2', amount: 0, pocket: null })).toContain('on the reds')
    expect(warningWords({ kind: 'hop', ball: null, amount: 0.006, pocket: null })).toContain('6.0 mm')
    expect(warningWords({ kind: 'closeJaw', ball: null, amount: 0.003, pocket: 'green-top' })).toContain('top green-side pocket by 3.0 mm')
  })

  it('say what a plant, a set and a double are', () => {
    expect(kindWords(cut({}))).toBe('')
    expect(kindWords(cut({ kind: 'plant', struck: 'red-2' }))).toBe('plant off red 2')
    expect(kindWords(cut({ kind: 'double', off: 'yellow-side' }))).toBe('double, yellow’s side cushion')
  })

  it('say how the white is reached', () => {
    const reach = { stance: 'natural' as const, elevationDegrees: 0, over: null, bridgeOver: null, errorFactor: 1 }
    expect(reachWords(reach)).toBe('natural stance')
    expect(reachWords({ ...reach, stance: 'rest', elevationDegrees: 12.5, over: 'pink', bridgeOver: 'pink' })).toBe(
      'only with the rest; bridging over the pink; butt up to 13° to clear the pink',
    )
    expect(reachNeedWords(reach)).toBe('')
    expect(reachWords({ ...reach, elevationDegrees: 20 })).toContain('clear the rail')
    expect(reachWords({ ...reach, errorFactor: 1.4 })).toBe('natural stance; your errors 1.4 times as large')
  })

  it('say where a ball lies from cushions and spots', () => {
    const lies = { stretch: 'blueToPink' as const, cushion: 'green-side', fromCushion: 0.094, spot: 'blue', fromSpot: 0.6 }
    expect(whereWords(lies)).toBe('between blue and pink, 94 mm off the green’s side cushion')
    expect(whereWords({ ...lies, fromCushion: 0.001 })).toBe('between blue and pink, tight on the green’s side cushion')
    expect(whereWords({ ...lies, fromCushion: 0.7 })).toBe('between blue and pink, out in the open')
    expect(whereWords({ ...lies, fromSpot: 0.06 })).toBe('60 mm from the blue’s spot')
    expect(whereWords({ ...lies, fromSpot: 0.002 })).toBe('on the blue’s spot')
    expect([cushionCountWords(1), cushionCountWords(3), cushionCountWords(9)]).toEqual(['one cushion', 'three cushions', '9 cushions'])
  })
})
