// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { useLatest } from './useLatest'

describe('useLatest', () => {
  it('runs the first and the last of many requests, in order, one at a time', async () => {
    const seen: number[] = []
    let running = 0
    const run = useLatest(async (n: number) => {
      expect(++running).toBe(1)
      await new Promise((r) => setTimeout(r, 5))
      seen.push(n)
      running--
    })
    await Promise.all([1, 2, 3, 4].map((n) => run(n)))
    expect(seen).toEqual([1, 4])
  })

  it('goes on after a failure', async () => {
    const seen: number[] = []
    const run = useLatest(async (n: number) => {
      if (n === 1) throw new Error('no')
      seen.push(n)
    })
    await expect(run(1)).rejects.toThrow('no')
    await run(2)
    expect(seen).toEqual([2])
  })
})
