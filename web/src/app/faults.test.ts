import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { ask, Problem } from '../api/client'
import { tell } from './faults'
import { useNotices } from '../lib/notices'

beforeEach(() => {
  setActivePinia(createPinia())
  vi.spyOn(console, 'error').mockImplementation(() => {})
})

it('a request given up by the page is no failure and is not told', async () => {
  const given = ask(Promise.reject(new DOMException('given up', 'AbortError')))
  const fault = await given.catch((e: unknown) => e)
  expect(fault).not.toBeInstanceOf(Problem)
  tell(fault)
  expect(useNotices().notices).toEqual([])
})

it('a server that does not answer is told with what is still there', async () => {
  const fault = await ask(Promise.reject(new TypeError('Failed to fetch'))).catch((e: unknown) => e)
  tell(fault)
  expect(useNotices().notices).toMatchObject([
    { kind: 'error', text: 'No connection to Deep Baize.', detail: expect.stringContaining('still here') },
  ])
})

it('a fault of the page is told once, however often it comes', () => {
  tell(new Error('a'))
  tell(new Error('b'))
  expect(useNotices().notices).toMatchObject([{ kind: 'error', text: 'Something in the page went wrong.' }])
})
