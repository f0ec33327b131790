import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import { useLibrary } from './library'
import { eventually } from '../../lib/eventually.fixture'

afterEach(() => disposePinia(getActivePinia()!))

it('shows what the newest words find, however late the older answer comes', async () => {
  const waiting: { words: string; answer: () => void }[] = []
  vi.stubGlobal('fetch', (request: Request) => {
    const words = new URL(request.url).searchParams.get('search') ?? ''
    const answer = () => new Response(JSON.stringify([{ id: words }]), { status: 200, headers: { 'Content-Type': 'application/json' } })
    return new Promise((resolve) => waiting.push({ words, answer: () => resolve(answer()) }))
  })
  setActivePinia(createPinia())
  const library = useLibrary()
  library.search = 'blue'
  await eventually(() => expect(waiting.length).toBeGreaterThan(0))
  library.search = 'blue along'
  await new Promise((typed) => setTimeout(typed, 200))
  // Whichever of them has been asked, the older is answered last.
  for (const one of [...waiting].reverse()) one.answer()
  await eventually(() => expect(waiting.at(-1)!.words).toBe('blue along'))
  for (const one of waiting) one.answer()
  await eventually(() => expect(library.positions).toEqual([{ id: 'blue along' }]))
  // What is searched for may stand on another shelf.
  expect(library.counts).toEqual({ positions: 1, shots: 1, plans: 1, bin: 1 })
})

it('shows more of a long list, in as many requests as the server wants', async () => {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const query = new URL(request.url).searchParams
    const [skip, take] = [Number(query.get('skip')), Number(query.get('take'))]
    asked.push(`${skip}+${take}`)
    const items = Array.from({ length: Math.max(0, Math.min(take, 230 - skip)) }, (_, i) => ({ id: `${skip + i}` }))
    return new Response(JSON.stringify(items), { status: 200, headers: { 'Content-Type': 'application/json', 'Total-Count': '230' } })
  })
  setActivePinia(createPinia())
  const library = useLibrary()
  await library.load()
  expect([library.positions?.length, library.total]).toEqual([50, 230])
  for (const many of [100, 150, 200, 230]) {
    library.more()
    await eventually(() => expect(library.positions).toHaveLength(many))
  }
  expect(asked.slice(-2)).toEqual(['0+200', '200+30'])
})
