import { afterEach, describe, expect, it } from 'vitest'
import { createApp, defineComponent, h, nextTick, ref } from 'vue'
import FigureInput from './FigureInput.vue'

describe('a figure to type', () => {
  const value = ref(4)
  const host = defineComponent(
    () => () =>
      h(FigureInput, {
        modelValue: value.value,
        min: 0,
        max: 10,
        digits: 1,
        label: 'Pace',
        'onUpdate:modelValue': (v: number) => (value.value = v),
      }),
  )
  let app: ReturnType<typeof createApp> | undefined
  afterEach(() => app?.unmount())

  async function open() {
    value.value = 4
    const page = document.createElement('div')
    app = createApp(host)
    app.mount(page)
    const input = page.querySelector('input')!
    async function type(text: string, key?: string) {
      input.dispatchEvent(new Event('focus'))
      input.value = text
      input.dispatchEvent(new Event('input'))
      input.dispatchEvent(key ? new KeyboardEvent('keydown', { key }) : new Event('blur'))
      await nextTick()
    }
    return { page, input, type, error: () => page.querySelector('[role=alert]')?.textContent ?? null }
  }

  it('refuses what is out of range beside the field, with the range, and changes nothing', async () => {
    const { input, type, error } = await open()
    await type('14')
    expect(error()).toBe('Pace: 0.0 to 10.0')
    expect(value.value).toBe(4)
    expect(input.getAttribute('aria-invalid')).toBe('true')
    expect(input.getAttribute('aria-describedby')).toBeTruthy()
  })

  it('forgets the refusal when the value is changed elsewhere', async () => {
    const { input, type, error } = await open()
    await type('14')
    value.value = 5
    await nextTick()
    expect(error()).toBeNull()
    expect(input.value).toBe('5.0')
  })

  it('takes back on Esc what was typed', async () => {
    const { input, type, error } = await open()
    await type('14', 'Escape')
    expect(error()).toBeNull()
    expect(input.value).toBe('4.0')
  })
})
