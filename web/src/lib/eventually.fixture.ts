import { vi } from 'vitest'

/** In tests: waits until a claim holds, long enough for a machine that is busy with something else. */
export const eventually = (claim: () => void | Promise<void>) => vi.waitFor(claim, { timeout: 20_000 })
