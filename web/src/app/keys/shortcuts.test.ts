import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createApp, defineComponent, h } from 'vue'
import type { Reference } from '../../api/client'
import { useKeeping } from '../../position/keeping'
import { plainPot, plainStroke } from '../../domain/strokes'
import { useDraft } from '../../position/draft'
import { useCommands } from './commands'
import { useKeys } from './keys'
import { useShortcuts } from './shortcuts'

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

describe('keys', () => {
  let app: ReturnType<typeof createApp>
  let page: HTMLElement
  let position: ReturnType<typeof useDraft>

  beforeEach(() => {
    sessionStorage.clear()
    localStorage.clear()
    vi.stubGlobal('fetch', async () => new Response('{}', { status: 200, headers: { 'Content-Type': 'application/json' } }))
    const pinia = createPinia()
    setActivePinia(pinia)
    page = document.body.appendChild(document.createElement('div'))
    const host = defineComponent({
      setup() {
        useShortcuts(() => {})
        return () =>
          h('div', [
            h('button', { id: 'button' }),
            h('input', { id: 'field' }),
            h('table', h('tbody', h('tr', { id: 'row', tabindex: 0 }))),
            h('div', { id: 'plan', tabindex: 0 }),
          ])
      },
    })
    app = createApp(host).use(pinia)
    app.mount(page)
    position = useDraft()
    position.reference = { tipLimit: 1.5, paceMin: 0.5, paceMax: 10, ballIds: ['white', 'red-1'] } as unknown as Reference
    position.reset(draft(), null)
    position.selected = 'red-1'
  })
  afterEach(() => {
    app.unmount()
    document.body.replaceChildren()
    disposePinia(getActivePinia()!)
  })

  const press = (key: string, on = 'plan', more: KeyboardEventInit = {}) =>
    document.getElementById(on)!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))

  it('act on the plan, and letters with a button in focus too', () => {
    press('w')
    press('w', 'button')
    expect(position.stroke.height).toBeCloseTo(0.1)
    press('Delete')
    expect(position.ball('red-1')).toBeUndefined()
  })

  it.each([
    ['Delete', 'button'],
    ['Delete', 'row'],
    ['Delete', 'field'],
  ])('%s on a %s takes no ball off', (key, on) => {
    press(key, on)
    expect(position.ball('red-1')).toBeDefined()
  })

  it('leave arrows and Space to a list that has the focus', () => {
    const nudge = vi.spyOn(position, 'nudge')
    press('ArrowDown', 'row')
    expect(nudge).not.toHaveBeenCalled()
    press('ArrowDown')
    expect(nudge).toHaveBeenCalledTimes(1)
  })

  it('do nothing beneath an open drawer or dialog, saving neither', () => {
    const save = vi.spyOn(useKeeping(), 'save').mockReturnValue(Promise.resolve())
    const overlay = document.body.appendChild(document.createElement('div'))
    overlay.className = 'el-overlay'
    press('w')
    press('s', 'plan', { ctrlKey: true })
    expect(position.stroke.height).toBe(0)
    expect(save).not.toHaveBeenCalled()
    // A drawer that has been closed stays in the page, hidden.
    overlay.style.display = 'none'
    press('s', 'plan', { ctrlKey: true })
    press('w')
    expect(save).toHaveBeenCalledTimes(1)
    expect(position.stroke.height).toBe(0.05)
  })

  it('do nothing beneath a drawer that leaves the plan in sight, nor beneath the tour', () => {
    for (const kind of ['el-drawer', 'el-tour__mask']) {
      const cover = document.body.appendChild(document.createElement('div'))
      cover.className = kind
      press('w')
      expect(position.stroke.height).toBe(0)
      cover.remove()
    }
    press('w')
    expect(position.stroke.height).toBe(0.05)
  })

  it('of one sign can be switched off, all or one by one, and changed', async () => {
    const commands = useCommands(() => {})
    const keys = useKeys(commands)
    const tipUp = commands.find((c) => c.id === 'tip-up')!
    keys.single.value = false
    expect(keys.find('w')).toBeUndefined()
    expect(keys.find('ctrl+z')?.id).toBe('undo')
    keys.single.value = true
    expect(keys.change(tipUp, 'j')).toBeNull()
    expect(keys.find('w')).toBeUndefined()
    expect(keys.find('j')).toBe(tipUp)
    // A key does one thing: what had it before goes without.
    expect(keys.change(tipUp, 's')?.id).toBe('tip-down')
    expect(keys.keyOf(commands.find((c) => c.id === 'tip-down')!)).toBeNull()
    keys.change(tipUp, null)
    expect(keys.find('s')).toBeUndefined()
    keys.reset()
    expect(keys.find('w')).toBe(tipUp)
  })

  it('are different for every command', () => {
    const taken = useCommands(() => {}).map((c) => `${c.place ?? ''} ${c.key}`)
    expect(new Set(taken).size).toBe(taken.length)
  })

  it('of one place do something else, or nothing, at another', () => {
    const keys = useKeys(useCommands(() => {}))
    expect(keys.find('d', 'session')?.id).toBe('count-done')
    expect(keys.find('d', 'table')?.id).toBe('aim-right')
    expect(keys.find('n', 'table')?.id).not.toBe('count-not')
    // What holds everywhere holds there too.
    expect(keys.find('f', 'session')?.id).toBe('frames')
  })
})
