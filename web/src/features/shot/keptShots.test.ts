import { exactly } from '../../lib/estimates'
import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { SavedPosition, Shot, Schemas } from '../../api/client'
import { useNotices } from '../../lib/notices'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useSaving } from '../../position/saving'
import { useGoal } from '../../position/goal'
import { useKeptShots } from './keptShots'
import { eventually } from '../../lib/eventually.fixture'

const position = {
  id: 'p1',
  name: 'A pot',
  about: '',
  version: 1,
  content: {
    balls: [
      { id: 'white', x: 1, y: 1 },
      { id: 'red-1', x: 2, y: 1 },
    ],
    stroke: { ...plainStroke, height: -0.5, pace: 5, pot: plainPot('red-1', 'green-top') },
    conditions: {},
  },
} as unknown as SavedPosition

const cut = {
  ball: 'red-1',
  pocket: 'green-top',
  struck: 'red-1',
  kind: 'single',
  off: null,
  cutDegrees: -21.4,
  fullness: 0.635,
  fullnessWord: 'threeQuarter',
}
const shot = {
  cut,
  allowance: { netMillimetres: 0, netDegrees: 0 },
  arrival: null,
  strike: { elevation: 3 },
  tipAboveBed: 0.0276,
  hop: 0.0008,
  reach: { stance: 'natural', raisedOver: null, elevationDegrees: 0, errorFactor: 1 },
  simulation: {
    events: [],
    finals: [
      { id: 'white', x: 1.5, y: 0.5, pocket: null },
      { id: 'red-1', x: 0, y: 0, pocket: 'green-top' },
    ],
    duration: 1,
  },
  warnings: [{ kind: 'inOff', ball: null, pocket: 'yellow', millimetres: null, degrees: null }],
} as unknown as Shot

describe('kept shots', () => {
  let kept: Schemas['SavedShotResult'][]
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    kept = []
    vi.stubGlobal('fetch', async (input: Request) => {
      const answer = (body: unknown) => new Response(JSON.stringify(body), { status: 200, headers: { 'Content-Type': 'application/json' } })
      if (!input.url.includes('/shots')) return answer({})
      if (input.method === 'POST') kept.push({ id: `s${kept.length + 1}`, ...(await input.json()) })
      const path = new URL(input.url).pathname
      if (input.method === 'DELETE') kept = kept.filter((s) => !path.endsWith(s.id))
      // The list says what there is; the balls come with the one that is opened.
      const one = kept.find((s) => path.endsWith(`/${s.id}`))
      return answer(one ?? kept.map(({ content, ...item }) => ({ ...item, stroke: content.stroke })))
    })
    useSaving().open(position)
  })
  afterEach(() => disposePinia(getActivePinia()!))

  it('say that a pot is missed where the stroke that is set up does not pot it', async () => {
    const store = useKeptShots()
    const finals = [{ id: 'red-1', x: 3.4, y: 1.6, pocket: null }]
    useShot().shot = { ...shot, simulation: { ...shot.simulation, finals } }
    await store.keep()
    useShot().shot = shot
    await store.keep()
    expect(kept.map((k) => k.name.split(':')[0])).toEqual([
      'red 1 in the top green-side pocket, missed',
      'red 1 in the top green-side pocket',
    ])
  })

  it('keep the stroke with a name that says it, and the line that was written', async () => {
    const store = useKeptShots()
    store.note = 'Watch the middle pocket.'
    await store.keep()
    expect(kept[0]).toMatchObject({
      name: expect.stringContaining('red 1 in the top green-side pocket: '),
      note: 'Watch the middle pocket.',
      content: { stroke: { height: -0.5, pace: 5 } },
    })
    expect(store.note).toBe('')
    expect(store.shots).toHaveLength(1)
  })

  it('come back with their balls and stroke, and undo goes back', async () => {
    const store = useKeptShots()
    await store.keep()
    useShot()
    const position = useDraft()
    useSaving()
    position.content.balls[1].x = 2.5
    position.setStroke({ pace: 8 })
    position.commit()
    await store.open(store.shots[0])
    expect([position.content.balls[1].x, position.stroke.pace]).toEqual([2, 5])
    position.undo()
    expect([position.content.balls[1].x, position.stroke.pace]).toEqual([2.5, 8])
  })

  it('are back with one undo once deleted', async () => {
    const store = useKeptShots()
    store.note = 'A line.'
    await store.keep()
    await store.remove(store.shots[0])
    expect(store.shots).toHaveLength(0)
    useNotices()
      .notices.find((n) => n.action)!
      .action!.run()
    await eventually(() => expect(store.shots).toHaveLength(1))
    expect(store.shots[0].note).toBe('A line.')
  })

  it('are not written over unseen: pressed again, with the newer version, they are', async () => {
    const store = useKeptShots()
    await store.keep()
    const mine = kept[0]
    const sent: number[] = []
    const before = globalThis.fetch
    vi.stubGlobal('fetch', async (input: Request) => {
      if (input.method !== 'PUT') return before(input)
      const { version } = (await input.json()) as { version: number }
      sent.push(version)
      const body = sent.length === 1 ? { status: 409, title: 'Saved since.', current: { ...mine, note: 'Theirs', version: 9 } } : mine
      return new Response(JSON.stringify(body), { status: sent.length === 1 ? 409 : 200, headers: { 'Content-Type': 'application/json' } })
    })
    await store.rewrite(store.shots[0], 'Mine')
    expect(useNotices().notices.at(-1)!.text).toContain('was changed elsewhere to “Theirs”')
    await store.rewrite(store.shots[0], 'Mine')
    expect(sent[1]).toBe(9)
  })

  it('go on a card with the figures that the desk shows, and no more than it knows', () => {
    const answer = useShot()
    useSaving()
    answer.shot = shot
    const store = useKeptShots()
    const labels = () => store.card().rows.map((r) => r.label)
    expect(store.card().rows.slice(0, 2)).toEqual([
      { label: 'Pot', value: 'red 1, top green-side' },
      { label: 'Cut', value: '21.4°' },
    ])
    expect(labels()).not.toContain('Chance')
    const options = [{ cut, chance: exactly(0.874), toleranceMillimetres: 3.2 } as unknown as Schemas['PotOptionResult']]
    expect(store.card(options).rows.slice(-2)).toEqual([
      { label: 'Tolerance', value: '±1.6 mm' },
      { label: 'Chance', value: '87 %' },
    ])
    expect(store.card().lines.at(-1)).toMatch(/^Watch for: /)
    expect(store.card().lines).toContain('Reach: natural stance. Butt 3°, the tip 28 mm above the bed, hops 0.8 mm.')
    expect(store.card().goal).toBeNull()
    useGoal().goal.place = { x: 2, y: 0.5 }
    expect(store.card().goal).toEqual({ x: 2, y: 0.5, radius: 0.15 })
  })
})
