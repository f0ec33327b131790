import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { useSearch } from './useSearch'
import { eventually } from './eventually.fixture'

/** A server that tells its events when it is let to. */
function slowServer() {
  const asked: { signal: AbortSignal; tell: (event: object) => void; end: () => void }[] = []
  vi.stubGlobal('fetch', async (_: string, request: RequestInit) => {
    let controller!: ReadableStreamDefaultController<Uint8Array>
    const body = new ReadableStream<Uint8Array>({ start: (c) => void (controller = c) })
    const encode = (text: string) => new TextEncoder().encode(text)
    request.signal!.addEventListener('abort', () => controller.error(new DOMException('gone', 'AbortError')))
    asked.push({
      signal: request.signal!,
      tell: (event) => controller.enqueue(encode(`data: ${JSON.stringify(event)}\n\n`)),
      end: () => controller.close(),
    })
    return new Response(body, { status: 200 })
  })
  return asked
}

describe('a search', () => {
  let scope: EffectScope
  beforeEach(() => {
    scope = effectScope()
  })
  afterEach(() => scope.stop())

  it('tells what went wrong in the midst of it, once the status is long sent', async () => {
    vi.stubGlobal('fetch', async () => {
      const problem = { status: 503, title: 'Deep Baize is being stopped.', code: 'stopping' }
      return new Response(`data: {"share":0.2}\n\nevent: problem\ndata: ${JSON.stringify(problem)}\n\n`, { status: 200 })
    })
    const told: object[] = []
    const search = scope.run(() =>
      useSearch<object>(
        '/api/ways',
        'The search',
        () => ({}),
        (e) => told.push(e),
      ),
    )!
    await search.search()
    expect(told).toEqual([{ share: 0.2 }])
    expect([search.problem.value?.code, search.isSearching.value]).toEqual(['stopping', false])
  })

  it('ends with what started it, and tells nothing more', async () => {
    const asked = slowServer()
    const told: object[] = []
    const search = scope.run(() =>
      useSearch(
        '/api/plan',
        'The plan',
        () => ({}),
        (e: object) => told.push(e),
      ),
    )!
    void search.search()
    await eventually(() => expect(asked).toHaveLength(1))
    asked[0].tell({ share: 0.5 })
    await eventually(() => expect(told).toHaveLength(1))
    scope.stop()
    expect(asked[0].signal.aborted).toBe(true)
    expect(search.isSearching.value).toBe(false)
  })

  it('asks anew once the question has changed and rested, and never tells of the old one', async () => {
    const asked = slowServer()
    const told: object[] = []
    const question = ref('a')
    const search = scope.run(() =>
      useSearch(
        '/api/plan',
        'The plan',
        () => ({ question: question.value }),
        (e: object) => told.push(e),
      ),
    )!
    scope.run(() => search.follows(() => question.value, 20))
    question.value = 'b'
    await eventually(() => expect(asked).toHaveLength(1))
    question.value = 'c'
    await nextTick()
    expect(asked[0].signal.aborted).toBe(true)
    await eventually(() => expect(asked).toHaveLength(2))
    asked[1].tell({ of: 'c' })
    await eventually(() => expect(told).toEqual([{ of: 'c' }]))
    asked[1].end()
    await eventually(() => expect(search.isSearching.value).toBe(false))
  })

  it('says that it was stopped, and what is wrong when it is refused', async () => {
    const asked = slowServer()
    const search = scope.run(() =>
      useSearch(
        '/api/plan',
        'The plan',
        () => ({}),
        () => {},
      ),
    )!
    void search.search()
    await eventually(() => expect(asked).toHaveLength(1))
    search.stop()
    expect([search.wasStopped.value, search.isSearching.value]).toEqual([true, false])
    vi.stubGlobal('fetch', async () => new Response(JSON.stringify({ title: 'No.', code: 'input' }), { status: 400 }))
    await search.search()
    expect(search.problem.value?.status).toBe(400)
    expect(search.wasStopped.value).toBe(false)
  })
})
