import { afterEach, describe, expect, it } from 'vitest'
import {
  countWords,
  degreeWords,
  distanceWords,
  lengthUnit,
  lengthWords,
  listWords,
  ownPace,
  paceScale,
  paceUnit,
  paceWords,
  percentWords,
  units,
} from './formats'

describe('figures and units', () => {
  afterEach(() => {
    units.value = 'mm'
  })

  it('are told in the units that the user likes', () => {
    expect(lengthWords(0.0942)).toBe('94 mm')
    expect(lengthWords(-0.00004, 1)).toBe('0.0 mm')
    expect(distanceWords(1.83)).toBe('1.8 m')
    units.value = 'inches'
    expect(lengthWords(0.0942)).toBe('3.7 in')
    expect(lengthWords(-0.0012, 1)).toBe('−0.05 in')
    // 6 ft is 1.8288 m (international foot).
    expect(distanceWords(1.8288)).toBe('6.0 ft')
  })

  it('are typed in them and come back as metres', () => {
    for (const unit of ['mm', 'inches'] as const) {
      units.value = unit
      expect(lengthUnit.metres(lengthUnit.of(0.889))).toBeCloseTo(0.889, 12)
    }
    // 35 inches across is the middle of a table 70 inches wide.
    expect(lengthUnit.of(0.889)).toBeCloseTo(35, 9)
    expect(lengthUnit.name).toBe('in')
  })

  it('read as they are said', () => {
    expect(percentWords(0.866)).toBe('87 %')
    expect(degreeWords(-0.001, 2)).toBe('0.00°')
    expect(paceWords(4)).toBe('pace 4')
    expect(paceWords(4.25)).toBe('pace 4.3')
    expect(listWords(['top', 'baulk', 'top'])).toBe('top, baulk and top')
    expect(countWords(1, 'point')).toBe('1 point')
  })

  it('tell a pace in the player’s own numbers first', () => {
    paceScale.value = [
      { own: 2, standard: 3 },
      { own: 5, standard: 6 },
    ]
    // Straight between the points, through nothing, and on as between the last two: as the core has it.
    for (const [own, standard] of [
      [1, 1.5],
      [2, 3],
      [3, 4],
      [7, 8],
    ]) {
      expect(paceUnit.standard(own)).toBeCloseTo(standard, 9)
      expect(paceUnit.of(standard)).toBeCloseTo(own, 9)
    }
    expect(paceWords(4)).toBe('pace 3 (standard 4)')
    expect(ownPace(8)).toBe('7')
    paceScale.value = [{ own: 5, standard: 4.4 }]
    expect(paceWords(8.8)).toBe('pace 10 (standard 8.8)')
    paceScale.value = []
    expect(paceUnit.isOwn).toBe(false)
  })
})
