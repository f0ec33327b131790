import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createApp, nextTick, type App } from 'vue'
import { plainStroke } from '../domain/strokes'
import { useDraft } from '../position/draft'
import PositionBar from './PositionBar.vue'

describe('the line about a position', () => {
  let app: App
  beforeEach(() => {
    sessionStorage.clear()
    vi.stubGlobal('fetch', async () => new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } }))
    const pinia = createPinia()
    setActivePinia(pinia)
    useDraft().reset({ name: 'A pot', about: 'as it was', content: { balls: [], stroke: { ...plainStroke }, conditions: {} } }, null)
    app = createApp(PositionBar).use(pinia)
    app.mount(document.body.appendChild(document.createElement('div')))
  })
  afterEach(() => {
    app.unmount()
    document.body.replaceChildren()
    disposePinia(getActivePinia()!)
  })

  const field = () => document.querySelector<HTMLTextAreaElement>('[data-testid=about-edit]')
  async function write(text: string) {
    document.querySelector<HTMLElement>('[data-testid=about]')!.click()
    await nextTick()
    await nextTick()
    field()!.value = text
    field()!.dispatchEvent(new Event('input', { bubbles: true }))
    await nextTick()
  }

  it('keeps what was written when it is left', async () => {
    await write('another line')
    field()!.dispatchEvent(new FocusEvent('blur'))
    await nextTick()
    expect(useDraft().draft.about).toBe('another line')
    useDraft().undo()
    expect(useDraft().draft.about).toBe('as it was')
  })

  it('lets go of it on Esc', async () => {
    await write('never mind')
    field()!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
    await nextTick()
    expect(field()).toBeNull()
    expect(useDraft().draft.about).toBe('as it was')
  })
})
