import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Reference } from '../../api/client'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useMap } from './map'
import { eventually } from '../../lib/eventually.fixture'

describe('where to be', () => {
  let asked: { path: string; body: { target: string | null; afterPot: boolean; x?: number } }[]
  let refuse: boolean
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    asked = []
    refuse = false
    vi.stubGlobal('fetch', async (request: Request) => {
      const path = new URL(request.url).pathname
      const body = JSON.parse((await request.text()) || '{}')
      if (path.startsWith('/api/position-')) asked.push({ path, body })
      if (refuse) return new Response(JSON.stringify({ title: 'No ball is on.', errors: [] }), { status: 400 })
      return new Response(JSON.stringify(path === '/api/position-map' ? { best: { x: 2, y: 1 }, bands: [] } : { value: 0.8 }), {
        status: 200,
        headers: { 'Content-Type': 'application/json' },
      })
    })
    const position = useDraft()
    position.reference = { length: 3.569, width: 1.778 } as Reference
    position.reset(
      {
        name: 'a',
        about: '',
        content: {
          balls: [
            { id: 'white', x: 1, y: 1 },
            { id: 'red-1', x: 2, y: 1 },
            { id: 'black', x: 3, y: 0.9 },
          ],
          stroke: { ...plainStroke, pot: plainPot('red-1', 'yellow') },
          conditions: {},
        },
      },
      null,
    )
  })
  afterEach(() => disposePinia(getActivePinia()!))

  const open = async () => {
    const map = useMap()
    map.isOpen = true
    await eventually(() => expect(map.map).not.toBeNull())
    return map
  }

  it('is asked for after the pot that is set up, unless it is for that ball itself or for what is on now', async () => {
    const map = await open()
    expect(asked[0].body).toMatchObject({ target: null, afterPot: true })
    for (const [target, body] of [
      ['black', { target: 'black', afterPot: true }],
      ['red-1', { target: 'red-1', afterPot: false }],
      ['on', { target: null, afterPot: false }],
    ] as const) {
      const before = asked.length
      map.target = target
      await eventually(() => expect(asked.length).toBe(before + 1))
      expect(asked.at(-1)!.body).toMatchObject(body)
    }
  })

  it('tells of the place under the pointer, and of the last one once it has left the bed', async () => {
    const map = await open()
    map.pointAt({ x: 2.2, y: 0.7 })
    await eventually(() => expect(map.quality).toEqual({ value: 0.8 }))
    expect(asked.at(-1)).toMatchObject({ path: '/api/position-at', body: { x: 2.2, y: 0.7 } })
    const before = asked.length
    map.pointAt({ x: 3.7, y: 0.7 })
    map.pointAt(null)
    expect([map.place, map.quality]).toEqual([{ x: 2.2, y: 0.7 }, { value: 0.8 }])
    expect(asked).toHaveLength(before)
  })

  it('says why there is none, and goes when it is closed', async () => {
    const map = await open()
    refuse = true
    map.target = 'black'
    await eventually(() => expect(map.problem?.message).toBe('No ball is on.'))
    expect(map.map).toBeNull()
    refuse = false
    map.target = 'after'
    await eventually(() => expect(map.map).not.toBeNull())
    map.isOpen = false
    await eventually(() => expect(map.map).toBeNull())
    map.pointAt({ x: 1, y: 1 })
    expect(map.place).toBeNull()
  })
})
