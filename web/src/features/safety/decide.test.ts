import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useView } from '../../position/view'
import { useNotices } from '../../lib/notices'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useDecide } from './decide'
import { exactly } from '../../lib/estimates'
import type { Attack, Escape } from './words'
import { eventually } from '../../lib/eventually.fixture'

const escape = {
  ball: 'red-1',
  route: 'green-side',
  cushions: ['green-side'],
  stroke: { aim: 40, pace: 5 },
  kept: { aimDegrees: 41.5, along: 0.02, trials: 2 },
} as unknown as Escape
const attack = {
  part: -1,
  choice: { stroke: { height: 0.5, pace: 6, pot: { ball: 'red-1', pocket: 'yellow' } } },
} as unknown as Attack
const told = {
  share: 1,
  isSnookered: false,
  unit: 'win',
  prospects: [
    { id: 'safety a', kind: 'safety', value: exactly(0.55), safety: { stroke: { aim: 10, pace: 4, free: true } } },
    { id: 'pot b', kind: 'pot', value: exactly(0.5), attack },
    { id: 'escape c', kind: 'escape', value: exactly(0.4), escape },
  ],
}

describe('attack or defend', () => {
  let asked: { path: string; method: string; body: Record<string, unknown> }[]
  let correction: object
  beforeEach(async () => {
    sessionStorage.clear()
    localStorage.clear()
    setActivePinia(createPinia())
    asked = []
    correction = { aimDegrees: 41, along: 0.028 }
    vi.stubGlobal('fetch', async (to: string | Request, init?: RequestInit) => {
      const request = typeof to === 'string' ? new Request(`http://localhost${to}`, init) : to
      const path = new URL(request.url).pathname
      asked.push({ path, method: request.method, body: JSON.parse((await request.text()) || '{}') })
      if (path === '/api/decide') return new Response(`data: ${JSON.stringify(told)}\n\n`, { status: 200 })
      const answers: Record<string, object> = {
        '/api/escape/correct': correction,
        '/api/escape/corrections': { route: 'green-side', along: 0.028, trials: 3 },
      }
      return new Response(JSON.stringify(answers[path] ?? {}), { status: 200, headers: { 'Content-Type': 'application/json' } })
    })
    useDraft().reset(
      {
        name: 'a',
        about: '',
        content: {
          balls: [
            { id: 'white', x: 1, y: 1 },
            { id: 'red-1', x: 2, y: 1 },
          ],
          stroke: { ...plainStroke, aim: 40, free: true },
          conditions: {},
        },
      },
      null,
    )
    useDecide()
    useView().go('safety')
    await eventually(() => expect(useDecide().items).toHaveLength(3))
  })
  afterEach(() => disposePinia(getActivePinia()!))

  const posts = (path: string) => asked.filter((a) => a.path === path)

  it('puts pots, safeties and escapes in one list as told, each under its identity', () => {
    expect(useDecide().items.map((i) => [i.key, i.kind])).toEqual([
      ['safety a', 'safety'],
      ['pot b', 'attack'],
      ['escape c', 'escape'],
    ])
  })

  it('sets one up without asking anew, and can err on the safer side of the pocket', async () => {
    const decide = useDecide()
    const position = useDraft()
    decide.choose(decide.items[1])
    expect(position.stroke).toMatchObject({ height: 0.5, pace: 6, pot: plainPot('red-1', 'yellow') })
    decide.err(attack)
    expect(position.stroke.pot).toEqual({ ...plainPot('red-1', 'yellow'), part: -1 })
    position.undo()
    expect(position.stroke.pot!.part).toBe(0)
    await new Promise((r) => setTimeout(r, 350))
    expect(posts('/api/decide')).toHaveLength(1)
  })

  it('asks anew once the other player is another', async () => {
    useDecide().rival = 'tour'
    await eventually(() => expect(posts('/api/decide')).toHaveLength(2))
    expect(posts('/api/decide')[1].body.rival).toBe('tour')
  })

  it('turns the aim by what was seen, says how far, and keeps it as the table’s', async () => {
    const decide = useDecide()
    await decide.correct(escape, 'passed', 0.04)
    expect(posts('/api/escape/correct')[0].body).toMatchObject({ ball: 'red-1', passed: 0.04 })
    expect(useDraft().stroke).toMatchObject({ aim: 41, free: true })
    const [notice] = useNotices().notices
    expect(notice.text).toBe('Next time aim 1.00° farther to the left: on the cushion 28 mm towards the top.')
    expect(decide.learnt).toEqual({ route: 'green-side', along: 0.028 })
    await decide.keepLearnt()
    expect(posts('/api/escape/corrections')[0].body).toEqual({ route: 'green-side', along: 0.028 })
    expect(decide.learnt).toBeNull()
    notice.action!.run()
    expect(useDraft().stroke.aim).toBe(40)
  })

  it('does not take a cushion that was missed for a fault of the table', async () => {
    const decide = useDecide()
    await decide.correct(escape, 'cushion', 0.03)
    expect(posts('/api/escape/correct')[0].body).toMatchObject({ along: 0.03 })
    expect(decide.learnt).toBeNull()
  })

  it('aims with what trials have taught, and forgets it', async () => {
    const decide = useDecide()
    decide.aimKept(escape)
    expect(useDraft().stroke.aim).toBe(41.5)
    await decide.forget(escape)
    expect(asked.some((a) => a.method === 'DELETE' && a.path === '/api/escape/corrections/green-side')).toBe(true)
    await eventually(() => expect(posts('/api/decide')).toHaveLength(2))
  })
})
