import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { Problem } from '../api/client'
import { answered, notAnswered } from '../api/connection'
import { useAnswer } from './useAnswer'

describe('an answer', () => {
  let scope: EffectScope
  let asked: { body: { q: string }; signal: AbortSignal; answer: (value: string) => void; fail: (why: unknown) => void }[]
  const question = ref<string | null>('a')
  beforeEach(() => {
    vi.useFakeTimers()
    scope = effectScope()
    asked = []
    question.value = 'a'
  })
  afterEach(() => {
    scope.stop()
    vi.useRealTimers()
  })
  const begin = (more: { rest?: number; keepAs?: string; isWanted?: () => boolean } = {}) =>
    scope.run(() =>
      useAnswer<{ q: string }, string>({
        question: () => (question.value === null ? null : { q: question.value }),
        ask: (body, signal) =>
          new Promise((answer, fail) => {
            signal.addEventListener('abort', () => fail(new DOMException('gone', 'AbortError')))
            asked.push({ body, signal, answer, fail })
          }),
        ...more,
      }),
    )!
  const settle = () => vi.advanceTimersByTimeAsync(0)

  it('belongs to its question: it is stale once another is asked, and says of which it is', async () => {
    const one = begin()
    asked[0].answer('A')
    await settle()
    expect([one.answer.value, one.isStale.value, one.asked.value]).toEqual(['A', false, { q: 'a' }])
    question.value = 'b'
    await nextTick()
    expect([one.answer.value, one.isStale.value, one.present.value, one.asked.value]).toEqual(['A', true, null, { q: 'a' }])
    asked[1].answer('B')
    await settle()
    expect([one.answer.value, one.isStale.value]).toEqual(['B', false])
  })

  it('is asked for one at a time while the question moves, and then for the newest', async () => {
    const one = begin()
    for (const q of ['b', 'c', 'd']) {
      question.value = q
      await nextTick()
    }
    expect(asked.map((a) => a.body.q)).toEqual(['a'])
    asked[0].answer('A')
    await settle()
    expect(asked.map((a) => a.body.q)).toEqual(['a', 'd'])
    asked[1].answer('D')
    await settle()
    expect([one.answer.value, one.isStale.value]).toEqual(['D', false])
  })

  it('that is costly waits until the question rests, and drops the one before', async () => {
    const one = begin({ rest: 100 })
    await vi.advanceTimersByTimeAsync(100)
    question.value = 'b'
    await nextTick()
    expect(asked[0].signal.aborted).toBe(true)
    await vi.advanceTimersByTimeAsync(60)
    question.value = 'c'
    await vi.advanceTimersByTimeAsync(60)
    expect(asked).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(60)
    expect(asked.map((a) => a.body.q)).toEqual(['a', 'c'])
    expect(one.isBusy.value).toBe(true)
  })

  it('that does not come in ten seconds is said to be late, tried again, and mends itself', async () => {
    const one = begin()
    await vi.advanceTimersByTimeAsync(10_000)
    expect([one.problem.value?.code, one.isTrying.value, asked[0].signal.aborted]).toEqual(['slow', true, true])
    await vi.advanceTimersByTimeAsync(1_000)
    expect(asked).toHaveLength(2)
    asked[1].answer('A')
    await settle()
    expect([one.answer.value, one.problem.value]).toEqual(['A', null])
  })

  it('is asked for again at once when the server is back', async () => {
    const one = begin()
    notAnswered()
    asked[0].fail(new Problem(503, 'Away', ''))
    await settle()
    expect(one.isTrying.value).toBe(true)
    answered()
    await settle()
    expect(asked).toHaveLength(2)
  })

  it('that is refused is not asked for again until the question changes', async () => {
    const one = begin()
    asked[0].fail(new Problem(400, 'No.', ''))
    await settle()
    await vi.advanceTimersByTimeAsync(60_000)
    expect([one.problem.value?.status, one.isTrying.value, asked.length]).toEqual([400, false, 1])
    question.value = 'b'
    await nextTick()
    expect(asked).toHaveLength(2)
  })

  it('is kept by its question', async () => {
    const one = begin({ keepAs: 'test' })
    asked[0].answer('A')
    await settle()
    question.value = 'b'
    await nextTick()
    asked[1].answer('B')
    await settle()
    question.value = 'a'
    await nextTick()
    expect([one.answer.value, one.isStale.value, asked.length]).toEqual(['A', false, 2])
  })

  it('that nobody wants is not asked for', async () => {
    const isWanted = ref(false)
    begin({ isWanted: () => isWanted.value })
    await settle()
    expect(asked).toHaveLength(0)
    isWanted.value = true
    await nextTick()
    expect(asked).toHaveLength(1)
  })
})
