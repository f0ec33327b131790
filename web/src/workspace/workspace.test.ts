import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { draftOf, plainPot, plainStroke, useWorkspace } from './workspace'

const draft = () => ({
  name: 'A pot', about: '',
  content: { balls: [{ id: 'white', x: 1, y: 1 }, { id: 'red-1', x: 2, y: 1 }], stroke: { ...plainStroke, pot: plainPot('red-1', 'green-top') }, conditions: {} },
})

describe('the workspace', () => {
  beforeEach(() => {
    sessionStorage.clear()
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

  it('fills in what an older position left out', () => {
    const old = draftOf({ name: 'old', about: '', content: { balls: [], stroke: { pace: 5, pot: { ball: 'blue', pocket: 'yellow' } } } } as never)
    expect(old.content.stroke).toEqual({ ...plainStroke, pace: 5, pot: plainPot('blue', 'yellow') })
    expect(old.content.conditions).toEqual({})
  })
})
