import { ElMessageBox } from 'element-plus'
import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { SavedPosition } from '../api/client'
import { useNotices } from '../lib/notices'
import { plainStroke } from '../domain/strokes'
import { useDraft } from './draft'
import { useSaving } from './saving'
import { useKeeping } from './keeping'
import { eventually } from '../lib/eventually.fixture'

const content = { balls: [{ id: 'white', x: 1, y: 1 }], stroke: plainStroke, conditions: {} }
const saved = (version: number, name = 'A pot') =>
  ({ id: 'p1', name, about: '', version, content, warnings: [] }) as unknown as SavedPosition

type Asked = { method: string; path: string; body: { version?: number; name?: string } | null }

/** Stands in for the server: what it is asked about positions, and what it answers to that. */
function serve(answer: (asked: Asked) => { status: number; body?: object } | undefined) {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (input: Request | string, init?: RequestInit) => {
    const request = typeof input === 'string' ? new Request(`http://localhost${input}`, init) : input
    const text = await request.text()
    const one = { method: request.method, path: new URL(request.url).pathname, body: text ? JSON.parse(text) : null }
    if (!one.path.startsWith('/api/positions')) return new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } })
    asked.push(one)
    const { status, body } = answer(one) ?? { status: 204 }
    if (status === 0) throw new TypeError('away')
    return new Response(status === 204 ? null : JSON.stringify(body ?? {}), { status, headers: { 'Content-Type': 'application/json' } })
  })
  return asked
}

describe('keeping positions', () => {
  beforeEach(() => {
    sessionStorage.clear()
    setActivePinia(createPinia())
    serve(() => undefined)
    useSaving().open(saved(1))
  })
  afterEach(() => {
    vi.restoreAllMocks()
    disposePinia(getActivePinia()!)
  })

  const change = () => useDraft().setStroke({ pace: 7 })

  it('saves once, however often it is asked to meanwhile', async () => {
    const asked = serve(() => ({ status: 200, body: saved(2) }))
    change()
    const keeping = useKeeping()
    await Promise.all([keeping.save(), keeping.save()])
    expect(asked).toHaveLength(1)
    expect(useDraft().origin?.version).toBe(2)
  })

  it('saves balls that are no frame, says so, and makes an exercise of them with one press', async () => {
    serve(() => ({ status: 200, body: saved(2) }))
    const positions = fetch
    const fault = { field: 'frame.colours', message: 'A colour is missing.', allowed: 'all six colours', code: 'invalid' }
    vi.stubGlobal('fetch', async (input: Request) =>
      new URL(input.url).pathname === '/api/frame'
        ? new Response(JSON.stringify({ title: 'No.', status: 400, code: 'invalid', errors: [fault] }), {
            status: 400,
            headers: { 'Content-Type': 'application/problem+json' },
          })
        : positions(input),
    )
    useDraft().replace({ ...useDraft().content, frame: { on: 'red' } })
    await useKeeping().save()
    const notice = useNotices().notices.at(-1)!
    expect(notice.text).toBe('Saved “A pot”. It is not a valid frame: A colour is missing.')
    notice.action!.run()
    expect(useDraft().content.frame).toEqual({ exercise: { order: 'any' } })
    expect(useDraft().canUndo).toBe(true)
  })

  it('tells of a newer one; over it goes what is here, with the newer version', async () => {
    const newer = saved(5, 'Somebody else’s')
    const asked = serve((a) =>
      a.body?.version === 1 ? { status: 409, body: { title: 'Saved since.', current: newer } } : { status: 200, body: saved(6) },
    )
    change()
    const keeping = useKeeping()
    await keeping.save()
    expect(keeping.conflict?.version).toBe(5)
    expect(useNotices().notices).toHaveLength(0)
    expect(useDraft().stroke.pace).toBe(7)
    await keeping.saveOver()
    expect(asked[1].body?.version).toBe(5)
    expect(keeping.conflict).toBeNull()
    expect(useDraft().isDirty).toBe(false)
  })

  it('takes the newer one instead, when that is wanted', async () => {
    serve(() => ({ status: 409, body: { title: 'Saved since.', current: saved(5, 'Somebody else’s') } }))
    change()
    const keeping = useKeeping()
    await keeping.save()
    keeping.takeNewer()
    expect(useDraft().draft.name).toBe('Somebody else’s')
    expect(useDraft().stroke.pace).toBe(plainStroke.pace)
  })

  it('keeps what was drawn while the application is away, and tries again', async () => {
    let isAway = true
    serve(() => (isAway ? { status: 0 } : { status: 200, body: saved(2) }))
    change()
    await useKeeping().save()
    const [notice] = useNotices().notices
    expect(notice.text).toBe('Could not save it: No connection to Deep Baize.')
    expect(useDraft().isDirty).toBe(true)
    isAway = false
    notice.action!.run()
    await eventually(() => expect(useDraft().isDirty).toBe(false))
  })

  it('says what is refused, without offering to try the same again', async () => {
    serve(() => ({ status: 400, body: { title: 'The name is too long.', detail: 'At most 120 characters.' } }))
    change()
    await useKeeping().save()
    expect(useNotices().notices[0]).toMatchObject({
      text: 'Could not save it: The name is too long.',
      detail: 'At most 120 characters.',
      action: undefined,
    })
  })

  it('deletes at once and brings back with one undo, the table as it was', async () => {
    const asked = serve((a) => (a.method === 'POST' ? { status: 200, body: saved(3) } : undefined))
    await useKeeping().remove({ id: 'p1', name: 'A pot', version: 1 }, () => {})
    expect(useDraft().origin).toBeNull()
    expect(useDraft().content.balls).toHaveLength(1)
    useNotices().notices[0].action!.run()
    await eventually(() => expect(useDraft().origin?.version).toBe(3))
    expect(asked.map((a) => `${a.method} ${a.path}`)).toEqual(['DELETE /api/positions/p1', 'POST /api/positions/p1/restore'])
  })

  it('does not delete what was changed since it was read, and looks at the list anew', async () => {
    serve(() => ({ status: 409, body: { title: 'Saved since.', current: saved(5, 'Another’s') } }))
    const looked = vi.fn()
    await useKeeping().remove({ id: 'p1', name: 'A pot', version: 1 }, looked)
    expect(looked).toHaveBeenCalledOnce()
    // No choice of whose is saved: nothing was to be saved.
    expect(useKeeping().conflict).toBeNull()
    expect(useNotices().notices[0].text).toBe('Could not delete it: “Another’s” was changed elsewhere. Check it and try again.')
    expect(useDraft().origin?.id).toBe('p1')
  })

  it('does not clear a changed table unasked', async () => {
    const asked = serve((a) => ({ status: 200, body: a.path.endsWith('p2') ? other : saved(1) }))
    const other = { ...saved(1, 'Another'), id: 'p2' }
    const question = vi.spyOn(ElMessageBox, 'confirm')
    change()
    question.mockRejectedValueOnce('close')
    await useKeeping().openById('p2')
    expect(useDraft().draft.name).toBe('A pot')
    question.mockRejectedValueOnce('cancel')
    await useKeeping().openById('p2')
    expect(useDraft().draft.name).toBe('Another')
    // Unchanged, it makes way without a question.
    await useKeeping().openById('p1')
    expect(question).toHaveBeenCalledTimes(2)
    expect(asked).toHaveLength(2)
    expect(useDraft().draft.name).toBe('A pot')
  })

  it('renames the open position without touching what is not saved of it', async () => {
    serve((a) => ({ status: 200, body: saved(2, a.body!.name) }))
    vi.spyOn(ElMessageBox, 'prompt').mockResolvedValue({ value: ' A better name ', action: 'confirm' } as never)
    change()
    await useKeeping().rename({ id: 'p1', name: 'A pot', version: 1 }, () => {})
    const position = useDraft()
    useSaving()
    expect([position.draft.name, position.origin?.version, position.stroke.pace]).toEqual(['A better name', 2, 7])
    position.setStroke({ pace: plainStroke.pace })
    expect(position.isDirty).toBe(false)
  })
})
