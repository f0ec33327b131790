import { beforeEach, expect, it, vi } from 'vitest'
import { sendOnce } from './idempotency'

const keys: (string | null)[] = []
let answer: () => Response
const post = (path: string, body: object) =>
  sendOnce(new Request(`http://localhost${path}`, { method: 'POST', body: JSON.stringify(body) })).catch(() => null)

beforeEach(() => {
  sessionStorage.clear()
  keys.length = 0
  answer = () => new Response('{}', { status: 201 })
  vi.stubGlobal('fetch', async (request: Request) => {
    keys.push(request.headers.get('Idempotency-Key'))
    return answer()
  })
})

it('asks again with the same key while there was no answer, and with a new one after it', async () => {
  answer = () => {
    throw new TypeError('the answer is lost on the way')
  }
  await post('/api/positions', { name: 'A pot' })
  answer = () => new Response('{}', { status: 502 })
  await post('/api/positions', { name: 'A pot' })
  answer = () => new Response('{}', { status: 201 })
  await post('/api/positions', { name: 'A pot' })
  await post('/api/positions', { name: 'A pot' })
  expect(keys[0]).toMatch(/^[0-9a-f]{32}$/)
  expect([keys[1], keys[2]]).toEqual([keys[0], keys[0]])
  expect(keys[3]).not.toBe(keys[0])
})

it('has a key of its own for each thing that is made, and none for what is only asked', async () => {
  answer = () => new Response('{}', { status: 503 })
  await post('/api/positions', { name: 'A pot' })
  await post('/api/positions', { name: 'Another' })
  await post('/api/frames/import', { name: 'A pot' })
  await post('/api/positions/p1/shots', { name: 'A pot' })
  expect(new Set(keys).size).toBe(4)
  await post('/api/shot', {})
  await post('/api/positions/export/json', {})
  expect(keys.slice(4)).toEqual([null, null])
})
