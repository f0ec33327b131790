import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { counts } from './judging'
import type { Step } from './routines'

type Case = { name: string; demands: Step['demands']; done: boolean } & Parameters<typeof counts>[1]
const cases = JSON.parse(readFileSync(join(import.meta.dirname, '../../../../tests/cases/counted-attempts.json'), 'utf8')) as Case[]
// The sizes of the Official Rules, Section 1.
const sizes = { length: 3.569, width: 1.778, ballRadius: 0.02625 }

describe('an attempt is judged on the device as in the core', () => {
  it.each(cases)('$name', ({ demands, done, ...seen }) => {
    expect(counts({ label: '', balls: [], demands }, seen, sizes)).toBe(done)
  })
})
