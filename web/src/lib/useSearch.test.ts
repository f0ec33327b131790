import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { eventually } from './eventually.fixture'
import { useSearch, type Progress } from './useSearch'

type Told = Progress & { lines: string[] }

/** A server that tells its events when it is let to. */
function slowServer() {
  const asked: { body: { q: string }; signal: AbortSignal; tell: (event: object) => void; end: () => void; breakOff: () => void }[] = []
  vi.stubGlobal('fetch', async (_: string, request: RequestInit) => {
    let controller!: ReadableStreamDefaultController<Uint8Array>
    const body = new ReadableStream<Uint8Array>({ start: (c) => void (controller = c) })
    const encode = (text: string) => new TextEncoder().encode(text)
    request.signal!.addEventListener('abort', () => controller.error(new DOMException('gone', 'AbortError')))
    asked.push({
      body: JSON.parse(request.body as string),
      signal: request.signal!,
      tell: (event) => controller.enqueue(encode(`data: ${JSON.stringify(event)}\n\n`)),
      end: () => controller.close(),
      breakOff: () => controller.error(new TypeError('network error')),
    })
    return new Response(body, { status: 200 })
  })
  return asked
}

describe('a search', () => {
  let scope: EffectScope
  // Each test asks something of its own: answers are kept by their question.
  let number = 0
  const question = ref('')
  const isWanted = ref(true)
  beforeEach(() => {
    scope = effectScope()
    question.value = `question ${++number}`
    isWanted.value = true
  })
  afterEach(() => {
    scope.stop()
    vi.useRealTimers()
  })
  const begin = () =>
    scope.run(() =>
      useSearch<Told>('/api/plan', {
        question: () => ({ q: question.value }),
        isWanted: () => isWanted.value,
        rest: 5,
        hasFound: (told) => told.lines.length > 0,
      }),
    )!

  it('tells what went wrong in the midst of it, keeps what it has found, and begins anew by itself', async () => {
    let tries = 0
    vi.stubGlobal('fetch', async () => {
      const problem = { status: 503, title: 'Deep Baize is being stopped.', code: 'stopping' }
      const found = `data: {"share":0.2,"lines":["a"]}\n\n`
      return new Response(
        tries++ ? `${found}data: {"share":1,"lines":["a","b"]}\n\n` : `${found}event: problem\ndata: ${JSON.stringify(problem)}\n\n`,
        { status: 200 },
      )
    })
    const search = begin()
    await eventually(() => expect(search.problem.value?.code).toBe('stopping'))
    expect(search.found.value?.lines).toEqual(['a'])
    await eventually(() => expect(search.found.value?.lines).toEqual(['a', 'b']))
    expect(search.problem.value).toBeNull()
  })

  it('shows nothing that is less than what it had found before the connection broke off', async () => {
    const asked = slowServer()
    const search = begin()
    await eventually(() => expect(asked).toHaveLength(1))
    asked[0].tell({ share: 0.6, lines: ['a', 'b'] })
    await eventually(() => expect(search.found.value?.share).toBe(0.6))
    asked[0].breakOff()
    await eventually(() => expect(asked).toHaveLength(2))
    asked[1].tell({ share: 0.2, lines: ['a'], status: { stages: ['x'], stage: 0, seconds: 1, isCut: false } })
    await eventually(() => expect(search.status.value).not.toBeNull())
    expect(search.found.value?.lines).toEqual(['a', 'b'])
    asked[1].tell({ share: 0.7, lines: ['c'] })
    await eventually(() => expect(search.found.value?.lines).toEqual(['c']))
  })

  it('ends with what started it, and tells nothing more', async () => {
    const asked = slowServer()
    const search = begin()
    await eventually(() => expect(asked).toHaveLength(1))
    asked[0].tell({ share: 0.5, lines: ['a'] })
    await eventually(() => expect(search.found.value).not.toBeNull())
    scope.stop()
    expect(asked[0].signal.aborted).toBe(true)
    expect(search.isSearching.value).toBe(false)
  })

  it('asks anew once the question has changed and rested, and shows nothing of the old one', async () => {
    const asked = slowServer()
    const search = begin()
    await eventually(() => expect(asked).toHaveLength(1))
    asked[0].tell({ share: 0.5, lines: ['old'] })
    await eventually(() => expect(search.found.value?.lines).toEqual(['old']))
    question.value += ', another'
    await nextTick()
    expect(asked[0].signal.aborted).toBe(true)
    expect(search.found.value).toBeNull()
    await eventually(() => expect(asked).toHaveLength(2))
    asked[1].tell({ share: 1, lines: ['new'] })
    asked[1].end()
    await eventually(() => expect([search.found.value?.lines, search.isSearching.value]).toEqual([['new'], false]))
  })

  it('shows at once what it has found before, and goes on while nobody looks', async () => {
    const asked = slowServer()
    const search = begin()
    const first = question.value
    await eventually(() => expect(asked).toHaveLength(1))
    asked[0].tell({ share: 0.5, lines: ['a'] })
    await eventually(() => expect(search.found.value?.lines).toEqual(['a']))
    isWanted.value = false
    await nextTick()
    expect(asked[0].signal.aborted).toBe(false)
    asked[0].tell({ share: 1, lines: ['a', 'b'] })
    asked[0].end()
    await eventually(() => expect(search.isSearching.value).toBe(false))
    // Another table, and back by undo.
    question.value += ', another'
    await nextTick()
    expect(search.found.value).toBeNull()
    question.value = first
    isWanted.value = true
    await nextTick()
    expect(search.found.value?.lines).toEqual(['a', 'b'])
    await new Promise((rested) => setTimeout(rested, 30))
    expect(asked).toHaveLength(1)
  })

  it('that falls silent says so and begins anew', async () => {
    vi.useFakeTimers()
    const asked = slowServer()
    const search = begin()
    await vi.advanceTimersByTimeAsync(10)
    expect(asked).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(10_001)
    expect(asked[0].signal.aborted).toBe(true)
    expect([search.problem.value?.code, search.isSearching.value]).toEqual(['slow', false])
    await vi.advanceTimersByTimeAsync(1_001)
    expect(asked).toHaveLength(2)
  })

  it('is not begun again by itself where its time limit has cut it', async () => {
    const asked = slowServer()
    const search = begin()
    await eventually(() => expect(asked).toHaveLength(1))
    asked[0].tell({ share: 0.6, lines: ['a'], status: { stages: ['x'], stage: 0, seconds: 1, isCut: true } })
    asked[0].end()
    await eventually(() => expect(search.isSearching.value).toBe(false))
    isWanted.value = false
    await nextTick()
    isWanted.value = true
    await new Promise((rested) => setTimeout(rested, 30))
    expect([asked.length, search.status.value?.isCut]).toEqual([1, true])
  })

  it('says that it was stopped, and what is wrong when it is refused', async () => {
    const asked = slowServer()
    const search = begin()
    await eventually(() => expect(asked).toHaveLength(1))
    search.stop()
    expect([search.wasStopped.value, search.isSearching.value]).toEqual([true, false])
    vi.stubGlobal('fetch', async () => new Response(JSON.stringify({ title: 'No.', code: 'input' }), { status: 400 }))
    await search.search()
    expect(search.problem.value?.status).toBe(400)
    expect(search.wasStopped.value).toBe(false)
  })
})
