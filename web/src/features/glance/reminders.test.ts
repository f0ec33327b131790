// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { kindsOf } from './reminders'

const reach = { elevationDegrees: 0 }
describe('reminders before a stroke', () => {
  it('go with the kind of stroke: low for screw, a pause for power, chalk for side, high on the white at the rail', () => {
    expect(kindsOf({ height: 0, side: 0, pace: 4 }, reach)).toEqual(['all'])
    expect(kindsOf({ height: -0.8, side: 0, pace: 4 }, reach)).toEqual(['all', 'screw'])
    expect(kindsOf({ height: -1, side: 0.5, pace: 6.5 }, null)).toEqual(['all', 'screw', 'power', 'side'])
    expect(kindsOf({ height: 0.5, side: 0, pace: 2.5 }, { elevationDegrees: 12 })).toEqual(['all', 'soft', 'rail'])
  })
})
