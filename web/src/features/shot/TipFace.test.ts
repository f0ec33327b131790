import { afterEach, describe, expect, it } from 'vitest'
import { createApp, h, ref } from 'vue'
import TipFace from './TipFace.vue'

describe('the face of the ball', () => {
  afterEach(() => document.body.replaceChildren())

  function mounted() {
    const tip = ref([0, -0.5])
    const done = ref(0)
    const app = createApp(() =>
      h(TipFace, {
        side: tip.value[0],
        height: tip.value[1],
        limit: 1.575,
        onChange: (side: number, height: number) => (tip.value = [side, height]),
        onCommit: () => done.value++,
      }),
    )
    app.mount(document.body.appendChild(document.createElement('div')))
    const face = () => document.querySelector('[role=slider]')!
    const press = async (key: string, more: KeyboardEventInit = {}) => {
      face().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))
      await Promise.resolve()
    }
    return { tip, done, face, press, app }
  }

  it('says in words where the tip is', () => {
    const { face, app } = mounted()
    expect(face().getAttribute('aria-valuetext')).toBe('half a tip below')
    app.unmount()
  })

  it('is moved by the arrow keys, each a gesture, and no farther than the miscue limit', async () => {
    const { tip, done, press, app } = mounted()
    await press('ArrowRight')
    expect(tip.value).toEqual([0.05, -0.5])
    for (let i = 0; i < 8; i++) await press('ArrowDown', { shiftKey: true })
    expect(Math.hypot(...tip.value)).toBeLessThan(1.575)
    expect(done.value).toBe(9)
    app.unmount()
  })
})
