import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useNotices } from '../lib/notices'
import { draftOf, plainPot, plainStroke } from '../domain/strokes'
import { useDraft } from './draft'
import { useSaving } from './saving'
import { eventually } from '../lib/eventually.fixture'

const draft = () => ({
  name: 'A pot',
  about: '',
  content: {
    balls: [
      { id: 'white', x: 1, y: 1 },
      { id: 'red-1', x: 2, y: 1 },
    ],
    stroke: { ...plainStroke, pot: plainPot('red-1', 'green-top') },
    conditions: {},
  },
})

describe('the workspace', () => {
  beforeEach(() => {
    sessionStorage.clear()
    localStorage.clear()
    setActivePinia(createPinia())
    vi.stubGlobal('fetch', async () => new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } }))
  })

  // A page has one workspace: those of the tests before must not listen any more.
  afterEach(() => disposePinia(getActivePinia()!))

  it('takes one gesture back with one undo, however many steps it had', () => {
    const position = useDraft()
    useSaving()
    position.reset(draft(), null)
    for (const pace of [4.1, 4.2, 4.3]) position.setStroke({ pace })
    position.commit()
    position.setStroke({ height: -1 })
    position.commit()
    position.undo()
    expect(position.stroke).toMatchObject({ pace: 4.3, height: 0 })
    position.undo()
    expect(position.stroke.pace).toBe(4)
    expect(position.canUndo).toBe(false)
    position.redo()
    position.redo()
    expect(position.stroke).toMatchObject({ pace: 4.3, height: -1 })
  })

  it('takes back a gesture that was not yet ended', () => {
    const position = useDraft()
    useSaving()
    position.reset(draft(), null)
    position.setStroke({ pace: 8 })
    position.undo()
    expect(position.stroke.pace).toBe(4)
  })

  it('begins a position of its own for a table from elsewhere, which saving never writes over the one before', () => {
    const position = useDraft()
    useSaving()
    position.reset(draft(), { id: 'kept', version: 3, draft: draft() })
    const back = position.begin('Line-up', { ...draft().content, balls: [{ id: 'white', x: 0.5, y: 1 }] })
    expect(position.origin).toBeNull()
    expect(position.draft).toMatchObject({ name: 'Line-up', content: { balls: [{ id: 'white' }] } })
    back()
    expect(position.origin).toMatchObject({ id: 'kept', version: 3 })
    expect(position.draft.content.balls).toHaveLength(2)
  })

  it('numbers the reds that stay as they were laid, and the pot with them; in a frame they keep their numbers', () => {
    const position = useDraft()
    const lay = (frame?: { first: number }) => {
      position.reset(
        {
          name: '',
          about: '',
          content: {
            balls: ['white', 'red-4', 'pink', 'red-7', 'red-9'].map((id, i) => ({ id, x: 0.5 + i / 2, y: 1 })),
            stroke: { ...plainStroke, pot: plainPot('red-9', 'green-top') },
            conditions: {},
            ...(frame ? { frame: frame } : {}),
          },
        },
        null,
      )
      position.selected = 'red-7'
    }
    lay()
    position.takeOff(['red-4'])
    expect(position.content.balls.map((b) => [b.id, b.x])).toEqual([
      ['white', 0.5],
      ['pink', 1.5],
      ['red-1', 2],
      ['red-2', 2.5],
    ])
    expect([position.stroke.pot?.ball, position.selected]).toEqual(['red-2', 'red-1'])
    position.takeOff(['red-2', 'white'])
    expect([position.stroke.pot, position.ball('white')]).toEqual([null, undefined])
    position.undo()
    position.undo()
    expect(position.content.balls.map((b) => b.id)).toEqual(['white', 'red-4', 'pink', 'red-7', 'red-9'])
    lay({ first: 0 })
    position.takeOff(['red-4'])
    expect(position.content.balls.map((b) => b.id)).toEqual(['white', 'pink', 'red-7', 'red-9'])
  })

  it('drops a pot whose ball, or the ball before it, is taken off the table', () => {
    const position = useDraft()
    useSaving()
    const plant = draft()
    plant.content.balls.push({ id: 'red-2', x: 1.5, y: 1 })
    plant.content.stroke.pot = { ...plainPot('red-1', 'green-top'), through: 'red-2' }
    position.reset(plant, null)
    position.remove('white')
    expect(position.content.balls).toHaveLength(3)
    position.selected = 'red-2'
    position.remove('red-2')
    expect(position.stroke.pot).toBeNull()
    expect(position.selected).toBe('white')
    position.undo()
    expect(position.stroke.pot?.through).toBe('red-2')
  })

  it('pots the ball in hand, or else the one that was meant', () => {
    const position = useDraft()
    useSaving()
    position.reset(draft(), null)
    position.potInto('yellow')
    expect(position.stroke.pot).toEqual(plainPot('red-1', 'yellow'))
    position.reset({ ...draft(), content: { ...draft().content, stroke: { ...plainStroke } } }, null)
    position.potInto('yellow')
    expect(position.stroke.pot).toBeNull()
  })

  it('keeps a free aim between -180 and 180 degrees', () => {
    const position = useDraft()
    useSaving()
    position.reset(draft(), null)
    position.aimFreely(190)
    expect(position.stroke).toMatchObject({ aim: -170, free: true })
    position.aimFreely(-540.25)
    expect(position.stroke.aim).toBe(179.75)
  })

  it('knows what is not saved, and keeps it for the tab', async () => {
    const position = useDraft()
    useSaving()
    position.reset(draft(), { id: '1', version: 1, draft: draft() })
    expect(position.isDirty).toBe(false)
    position.setStroke({ pace: 6 })
    expect(position.isDirty).toBe(true)
    const keptPace = () => JSON.parse(sessionStorage.getItem('deep-baize-draft') ?? '{}').draft?.content.stroke.pace
    await eventually(() => expect(keptPace()).toBe(6))
    position.setStroke({ pace: 7 })
    window.dispatchEvent(new Event('pagehide'))
    expect(keptPace()).toBe(7)
  })

  // ---- Answers that come late ----

  /** A server whose answers are given by hand, in the order they were asked for. */
  function slowly(path: string) {
    const waiting: { body: Record<string, unknown>; answer: (body: object, status?: number) => void }[] = []
    vi.stubGlobal('fetch', async (request: Request) => {
      if (!new URL(request.url).pathname.startsWith(path))
        return new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } })
      const body = JSON.parse(await request.text())
      return new Promise((resolve) => {
        const answer = (sent: object, status = 200) =>
          resolve(new Response(JSON.stringify(sent), { status, headers: { 'Content-Type': 'application/json' } }))
        waiting.push({ body, answer })
      })
    })
    return waiting
  }
  const saved = (version: number) => ({ id: '1', version, ...draft(), warnings: [] })

  it('still knows as not saved what was typed while it was being saved', async () => {
    const asked = slowly('/api/positions')
    const position = useDraft()
    const saving = useSaving()
    position.reset(draft(), { id: '1', version: 1, draft: draft() })
    position.setStroke({ pace: 6 })
    const done = saving.save()
    await eventually(() => expect(asked).toHaveLength(1))
    position.setStroke({ pace: 7 })
    asked[0].answer(saved(2))
    await done
    expect((asked[0].body.content as { stroke: { pace: number } }).stroke.pace).toBe(6)
    expect(position.isDirty).toBe(true)
    expect(position.origin?.version).toBe(2)
    position.setStroke({ pace: 6 })
    expect(position.isDirty).toBe(false)
  })

  it('leaves the position opened since alone when a save is answered', async () => {
    const asked = slowly('/api/positions')
    const position = useDraft()
    const saving = useSaving()
    position.reset(draft(), { id: '1', version: 1, draft: draft() })
    position.setStroke({ pace: 6 })
    const done = saving.save()
    await eventually(() => expect(asked).toHaveLength(1))
    position.reset({ ...draft(), name: 'Another' }, { id: '2', version: 9, draft: { ...draft(), name: 'Another' } })
    asked[0].answer(saved(2))
    await done
    expect(position.origin).toMatchObject({ id: '2', version: 9 })
    expect(position.isDirty).toBe(false)
  })

  it.each([
    ['another position is opened', (w: ReturnType<typeof useDraft>) => w.reset({ ...draft(), name: 'Another' }, null), { x: 2, y: 1 }],
    ['the ball is taken off', (w: ReturnType<typeof useDraft>) => w.remove('red-1'), undefined],
  ])('drops the answer to a drag when %s meanwhile', async (_, meanwhile, there) => {
    const asked = slowly('/api/place')
    const position = useDraft()
    useSaving()
    position.reset(draft(), null)
    const dragging = position.drag('red-1', 3, 1.5)
    await eventually(() => expect(asked).toHaveLength(1))
    meanwhile(position)
    asked[0].answer({ x: 3, y: 1.5 })
    await dragging
    const red = position.ball('red-1')
    expect(red && { x: red.x, y: red.y }).toEqual(there)
  })

  it('adds up arrow presses that come faster than the answers', async () => {
    const asked = slowly('/api/place')
    const position = useDraft()
    useSaving()
    position.reset(draft(), null)
    const pressed = Array.from({ length: 10 }, () => position.nudge(0.001, 0))
    for (let i = 0; i < 2; i++) {
      await eventually(() => expect(asked).toHaveLength(i + 1))
      asked[i].answer({ x: asked[i].body.x, y: asked[i].body.y })
    }
    await Promise.all(pressed)
    expect(position.ball('white')!.x).toBeCloseTo(1.01, 9)
    position.undo()
    expect(position.ball('white')!.x).toBe(1)
  })

  it('brings back what was not saved when the tab was closed, and puts it aside if asked', async () => {
    const serve = async (request: Request) => {
      const path = new URL(request.url).pathname
      const body =
        path === '/api/positions'
          ? [saved(1)]
          : path === '/api/reference'
            ? { openingRack: [] }
            : path.startsWith('/api/positions/')
              ? saved(1)
              : path === '/api/in-hand'
                ? { player: { id: 'p' }, table: { id: 't' }, cue: { id: 'c' } }
                : {}
      return new Response(JSON.stringify(body), { status: 200, headers: { 'Content-Type': 'application/json' } })
    }
    vi.stubGlobal('fetch', serve)
    const before = useDraft()
    await useSaving().start()
    before.setStroke({ pace: 8.5 })
    before.commit()
    window.dispatchEvent(new Event('pagehide'))
    // Another tab: nothing of this one's session.
    disposePinia(getActivePinia()!)
    sessionStorage.clear()
    setActivePinia(createPinia())
    const after = useDraft()
    await useSaving().start()
    expect(after.stroke.pace).toBe(8.5)
    expect(after.isDirty).toBe(true)
    useNotices().notices[0].action!.run()
    expect(after.stroke.pace).toBe(4)
    expect(after.isDirty).toBe(false)
  })

  it('keeps what each of two tabs has not saved, and brings both back', async () => {
    vi.stubGlobal('fetch', async (request: Request) => {
      const path = new URL(request.url).pathname
      const answers: Record<string, unknown> = {
        '/api/positions': [saved(1)],
        '/api/reference': { openingRack: [] },
        '/api/in-hand': { player: { id: 'p' }, table: { id: 't' }, cue: { id: 'c' } },
      }
      return new Response(JSON.stringify(answers[path] ?? saved(1)), { status: 200, headers: { 'Content-Type': 'application/json' } })
    })
    const anotherTab = async () => {
      sessionStorage.clear()
      setActivePinia(createPinia())
      await useSaving().start()
      return useDraft()
    }
    localStorage.clear()
    const one = await anotherTab()
    one.rename('One')
    one.commit()
    await eventually(() => expect(localStorage.getItem('deep-baize-unsaved-tabs')).toContain('One'))
    // The other tab is open at the same time: nothing of the first is brought back into it.
    const other = await anotherTab()
    expect(other.draft.name).not.toBe('One')
    other.rename('Other')
    other.commit()
    await eventually(() => expect(localStorage.getItem('deep-baize-unsaved-tabs')).toContain('Other'))
    window.dispatchEvent(new Event('pagehide'))
    const third = await anotherTab()
    const offered = useNotices().notices.find((n) => n.text.includes('was not saved either'))!
    expect([third.draft.name, offered.text].join(' ')).toMatch(/One.*Other|Other.*One/)
    const first = third.draft.name
    offered.action!.run()
    expect([first, third.draft.name].sort()).toEqual(['One', 'Other'])
  })

  it('fills in what an older position left out', () => {
    const old = draftOf({
      name: 'old',
      about: '',
      content: { balls: [], stroke: { pace: 5, pot: { ball: 'blue', pocket: 'yellow' } } },
    })
    expect(old.content.stroke).toEqual({ ...plainStroke, pace: 5, pot: plainPot('blue', 'yellow') })
    expect(old.content.conditions).toEqual({})
  })
})
