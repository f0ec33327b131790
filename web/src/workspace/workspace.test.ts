import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useNotices } from './notices'
import { draftOf, plainPot, plainStroke, useWorkspace } from './workspace'

const draft = () => ({
  name: 'A pot', about: '',
  content: { balls: [{ id: 'white', x: 1, y: 1 }, { id: 'red-1', x: 2, y: 1 }], stroke: { ...plainStroke, pot: plainPot('red-1', 'green-top') }, conditions: {} },
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
    const workspace = useWorkspace()
    workspace.reset(draft(), null)
    for (const pace of [4.1, 4.2, 4.3]) workspace.setStroke({ pace })
    workspace.commit()
    workspace.setStroke({ height: -1 })
    workspace.commit()
    workspace.undo()
    expect(workspace.stroke).toMatchObject({ pace: 4.3, height: 0 })
    workspace.undo()
    expect(workspace.stroke.pace).toBe(4)
    expect(workspace.canUndo).toBe(false)
    workspace.redo()
    workspace.redo()
    expect(workspace.stroke).toMatchObject({ pace: 4.3, height: -1 })
  })

  it('takes back a gesture that was not yet ended', () => {
    const workspace = useWorkspace()
    workspace.reset(draft(), null)
    workspace.setStroke({ pace: 8 })
    workspace.undo()
    expect(workspace.stroke.pace).toBe(4)
  })

  it('drops a pot whose ball, or the ball before it, is taken off the table', () => {
    const workspace = useWorkspace()
    const plant = draft()
    plant.content.balls.push({ id: 'red-2', x: 1.5, y: 1 })
    plant.content.stroke.pot = { ...plainPot('red-1', 'green-top'), through: 'red-2' }
    workspace.reset(plant, null)
    workspace.remove('white')
    expect(workspace.content.balls).toHaveLength(3)
    workspace.selected = 'red-2'
    workspace.remove('red-2')
    expect(workspace.stroke.pot).toBeNull()
    expect(workspace.selected).toBe('white')
    workspace.undo()
    expect(workspace.stroke.pot?.through).toBe('red-2')
  })

  it('pots the ball in hand, or else the one that was meant', () => {
    const workspace = useWorkspace()
    workspace.reset(draft(), null)
    workspace.potInto('yellow')
    expect(workspace.stroke.pot).toEqual(plainPot('red-1', 'yellow'))
    workspace.reset({ ...draft(), content: { ...draft().content, stroke: { ...plainStroke } } }, null)
    workspace.potInto('yellow')
    expect(workspace.stroke.pot).toBeNull()
  })

  it('keeps a free aim between -180 and 180 degrees', () => {
    const workspace = useWorkspace()
    workspace.reset(draft(), null)
    workspace.aimFreely(190)
    expect(workspace.stroke).toMatchObject({ aim: -170, free: true })
    workspace.aimFreely(-540.25)
    expect(workspace.stroke.aim).toBe(179.75)
  })

  it('knows what is not saved, and keeps it for the tab', async () => {
    const workspace = useWorkspace()
    workspace.reset(draft(), { id: '1', version: 1, draft: draft() })
    expect(workspace.isDirty).toBe(false)
    workspace.setStroke({ pace: 6 })
    expect(workspace.isDirty).toBe(true)
    const keptPace = () => JSON.parse(sessionStorage.getItem('deep-baize-draft') ?? '{}').draft?.content.stroke.pace
    await vi.waitFor(() => expect(keptPace()).toBe(6))
    workspace.setStroke({ pace: 7 })
    window.dispatchEvent(new Event('pagehide'))
    expect(keptPace()).toBe(7)
  })

  // ---- Answers that come late ----

  /** A server whose answers are given by hand, in the order they were asked for. */
  function slowly(path: string) {
    const waiting: { body: Record<string, unknown>; answer: (body: object, status?: number) => void }[] = []
    vi.stubGlobal('fetch', async (request: Request) => {
      if (!new URL(request.url).pathname.startsWith(path)) return new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } })
      const body = JSON.parse(await request.text())
      return new Promise((resolve) => {
        const answer = (sent: object, status = 200) => resolve(new Response(JSON.stringify(sent), { status, headers: { 'Content-Type': 'application/json' } }))
        waiting.push({ body, answer })
      })
    })
    return waiting
  }
  const saved = (version: number) => ({ id: '1', version, ...draft(), warnings: [] })

  it('still knows as not saved what was typed while it was being saved', async () => {
    const asked = slowly('/api/positions')
    const workspace = useWorkspace()
    workspace.reset(draft(), { id: '1', version: 1, draft: draft() })
    workspace.setStroke({ pace: 6 })
    const saving = workspace.save()
    await vi.waitFor(() => expect(asked).toHaveLength(1))
    workspace.setStroke({ pace: 7 })
    asked[0].answer(saved(2))
    await saving
    expect((asked[0].body.content as { stroke: { pace: number } }).stroke.pace).toBe(6)
    expect(workspace.isDirty).toBe(true)
    expect(workspace.origin?.version).toBe(2)
    workspace.setStroke({ pace: 6 })
    expect(workspace.isDirty).toBe(false)
  })

  it('leaves the position opened since alone when a save is answered', async () => {
    const asked = slowly('/api/positions')
    const workspace = useWorkspace()
    workspace.reset(draft(), { id: '1', version: 1, draft: draft() })
    workspace.setStroke({ pace: 6 })
    const saving = workspace.save()
    await vi.waitFor(() => expect(asked).toHaveLength(1))
    workspace.reset({ ...draft(), name: 'Another' }, { id: '2', version: 9, draft: { ...draft(), name: 'Another' } })
    asked[0].answer(saved(2))
    await saving
    expect(workspace.origin).toMatchObject({ id: '2', version: 9 })
    expect(workspace.isDirty).toBe(false)
  })

  it.each([
    ['another position is opened', (w: ReturnType<typeof useWorkspace>) => w.reset({ ...draft(), name: 'Another' }, null), { x: 2, y: 1 }],
    ['the ball is taken off', (w: ReturnType<typeof useWorkspace>) => w.remove('red-1'), undefined],
  ])('drops the answer to a drag when %s meanwhile', async (_, meanwhile, there) => {
    const asked = slowly('/api/place')
    const workspace = useWorkspace()
    workspace.reset(draft(), null)
    const dragging = workspace.drag('red-1', 3, 1.5)
    await vi.waitFor(() => expect(asked).toHaveLength(1))
    meanwhile(workspace)
    asked[0].answer({ x: 3, y: 1.5 })
    await dragging
    const red = workspace.ball('red-1')
    expect(red && { x: red.x, y: red.y }).toEqual(there)
  })

  it('adds up arrow presses that come faster than the answers', async () => {
    const asked = slowly('/api/place')
    const workspace = useWorkspace()
    workspace.reset(draft(), null)
    const pressed = Array.from({ length: 10 }, () => workspace.nudge(0.001, 0))
    for (let i = 0; i < 2; i++) {
      await vi.waitFor(() => expect(asked).toHaveLength(i + 1))
      asked[i].answer({ x: asked[i].body.x, y: asked[i].body.y } as object)
    }
    await Promise.all(pressed)
    expect(workspace.ball('white')!.x).toBeCloseTo(1.01, 9)
    workspace.undo()
    expect(workspace.ball('white')!.x).toBe(1)
  })

  it('brings back what was not saved when the tab was closed, and puts it aside if asked', async () => {
    const serve = async (request: Request) => {
      const path = new URL(request.url).pathname
      const body = path === '/api/positions' ? [saved(1)] : path === '/api/reference' ? { openingRack: [] } : path.startsWith('/api/positions/') ? saved(1) : {}
      return new Response(JSON.stringify(body), { status: 200, headers: { 'Content-Type': 'application/json' } })
    }
    vi.stubGlobal('fetch', serve)
    const before = useWorkspace()
    await before.start()
    before.setStroke({ pace: 8.5 })
    before.commit()
    window.dispatchEvent(new Event('pagehide'))
    // Another tab: nothing of this one's session.
    disposePinia(getActivePinia()!)
    sessionStorage.clear()
    setActivePinia(createPinia())
    const after = useWorkspace()
    await after.start()
    expect(after.stroke.pace).toBe(8.5)
    expect(after.isDirty).toBe(true)
    useNotices().notices[0].action!.run()
    expect(after.stroke.pace).toBe(4)
    expect(after.isDirty).toBe(false)
  })

  it('fills in what an older position left out', () => {
    const old = draftOf({ name: 'old', about: '', content: { balls: [], stroke: { pace: 5, pot: { ball: 'blue', pocket: 'yellow' } } } } as never)
    expect(old.content.stroke).toEqual({ ...plainStroke, pace: 5, pot: plainPot('blue', 'yellow') })
    expect(old.content.conditions).toEqual({})
  })
})
