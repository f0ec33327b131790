import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Reference } from '../../api/client'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useView } from '../../position/view'
import { useJudgements } from './judgements'
import { eventually } from '../../lib/eventually.fixture'

describe('judgements', () => {
  let asked: { path: string; body: Record<string, unknown>; signal: AbortSignal }[]
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    asked = []
    vi.stubGlobal('fetch', async (request: Request) => {
      asked.push({ path: new URL(request.url).pathname, body: JSON.parse((await request.text()) || '{}'), signal: request.signal })
      return new Response('[]', { status: 200, headers: { 'Content-Type': 'application/json' } })
    })
    useShot()
    const position = useDraft()
    position.reference = { touchOfSide: 0.5 } as Reference
    position.reset(
      {
        name: 'a',
        about: '',
        content: {
          balls: [
            { id: 'white', x: 1, y: 1 },
            { id: 'red-1', x: 2, y: 1 },
          ],
          stroke: { ...plainStroke, pace: 3, pot: plainPot('red-1', 'green-top') },
          conditions: {},
        },
      },
      null,
    )
  })
  afterEach(() => disposePinia(getActivePinia()!))

  const play = (pace: number) => useDraft().setStroke({ pace })
  const paths = () => asked.map((a) => a.path).filter((p) => ['/api/read', '/api/spread', '/api/fan', '/api/sides'].includes(p))

  it('are asked for only while they are shown, once the shot itself is answered', async () => {
    const judgements = useJudgements()
    await eventually(() => expect(useShot().shot).toBeTruthy())
    expect(paths()).toEqual([])
    judgements.fanKind = 'paces'
    await eventually(() => expect(paths()).toEqual(['/api/fan']))
    // In another step they are kept, but not asked for.
    useView().go('break')
    play(4)
    await new Promise((rested) => setTimeout(rested, 250))
    expect(paths()).toEqual(['/api/fan'])
    useView().go('shot')
    await eventually(() => expect(paths()).toEqual(['/api/fan', '/api/fan']))
  })

  it('drop the samples of a shot that has changed', async () => {
    const judgements = useJudgements()
    await eventually(() => expect(useShot().shot).toBeTruthy())
    const answerAtOnce = fetch
    vi.stubGlobal('fetch', (request: Request) =>
      new URL(request.url).pathname === '/api/spread' && !asked.some((a) => a.path === '/api/spread')
        ? new Promise((_, refuse) => {
            asked.push({ path: '/api/spread', body: {}, signal: request.signal })
            request.signal.addEventListener('abort', () => refuse(new DOMException('gone', 'AbortError')))
          })
        : answerAtOnce(request),
    )
    judgements.spreadOpen = true
    await eventually(() => expect(paths()).toEqual(['/api/spread']))
    play(4)
    await eventually(() => expect(paths()).toEqual(['/api/spread', '/api/spread']))
    const [first, second] = asked.filter((a) => a.path === '/api/spread')
    expect([first.signal.aborted, second.signal.aborted]).toEqual([true, false])
    judgements.spreadOpen = false
    await nextTick()
    expect(judgements.spread).toBeNull()
  })

  it.each([
    ['the spread', '/api/spread', 'spreadRefusal', (j: ReturnType<typeof useJudgements>): unknown => (j.spreadOpen = true)],
    ['a fan', '/api/fan', 'fanRefusal', (j: ReturnType<typeof useJudgements>): unknown => (j.fanKind = 'paces')],
  ] as const)('say why when %s is refused, wait no longer, and forget it once there is an answer', async (_, path, what, show) => {
    let refused = true
    vi.stubGlobal('fetch', async (request: Request) => {
      const problem = {
        title: 'The position does not hold.',
        detail: '',
        errors: [{ field: 'balls[1]', message: 'Two balls overlap.', allowed: 'apart' }],
      }
      const isRefused = refused && new URL(request.url).pathname === path
      return new Response(JSON.stringify(isRefused ? problem : []), {
        status: isRefused ? 400 : 200,
        headers: { 'Content-Type': 'application/json' },
      })
    })
    const judgements = useJudgements()
    await eventually(() => expect(useShot().shot).toBeTruthy())
    show(judgements)
    await eventually(() => expect(judgements[what]).toContain('Two balls overlap.'))
    await eventually(() => expect(judgements.isSampling).toBe(false))
    refused = false
    play(4)
    await eventually(() => expect(judgements[what]).toBe(''))
  })

  it('sample no stroke while the hand is still moving', async () => {
    const judgements = useJudgements()
    await eventually(() => expect(useShot().shot).toBeTruthy())
    judgements.spreadOpen = true
    for (let i = 0; i < 8; i++) {
      play(4 + i / 10)
      await new Promise((rested) => setTimeout(rested, 30))
    }
    expect(paths()).toEqual([])
    await eventually(() => expect(paths()).toEqual(['/api/spread']))
  })
})
