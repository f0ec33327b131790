import type { Cut } from '../api/client'

/** A plain cut for tests, changed as needed. */
export const cut = (change: Partial<Cut>): Cut => ({
  kind: 'direct',
  ball: 'red-1',
  struck: 'red-1',
  pocket: 'green-top',
  off: null,
  fault: 'none',
  ghostX: 0,
  ghostY: 0,
  legs: [],
  potDegrees: 0,
  aimDegrees: 0,
  cutDegrees: 20,
  fullness: 0.66,
  fullnessWord: 'threeQuarter',
  aimOffset: 0.018,
  openingDegrees: 1,
  cueBallDistance: 1,
  potDistance: 1,
  allowanceDegrees: 0,
  ...change,
})
