import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Command } from '../../position/commands'

/** The user's own keys: another for a command, or none. */
export function useKeys(commands: Command[]) {
  const changed = useLocalStorage<Record<string, string | null>>('deep-baize-keys', {})
  /** Keys of one sign act at all (WCAG 2.1.4): whoever speaks to the computer switches them off. */
  const single = useLocalStorage('deep-baize-single-keys', true)

  const keyOf = (c: Command) => (changed.value[c.id] === undefined ? c.key : changed.value[c.id])
  const nameIn = (key: string, place = '') => `${place} ${key}`
  const byKey = computed(() => new Map(commands.flatMap((c) => (keyOf(c) ? [[nameIn(keyOf(c)!, c.place), c] as const] : []))))
  const isSingle = (key: string) => [...key].length === 1

  /** Sets another key, or none; what had it before loses it. */
  function change(command: Command, key: string | null) {
    const taken = key && commands.find((c) => c !== command && c.place === command.place && keyOf(c) === key)
    const now = { ...changed.value, ...(taken ? { [taken.id]: null } : {}), [command.id]: key }
    if (key === command.key) delete now[command.id]
    changed.value = now
    return taken || null
  }

  function reset() {
    changed.value = {}
  }

  /** @param place By its route's name: what holds there alone comes before what holds everywhere. */
  const find = (key: string, place?: string) =>
    isSingle(key) && !single.value ? undefined : ((place ? byKey.value.get(nameIn(key, place)) : undefined) ?? byKey.value.get(nameIn(key)))
  return { single, changed, keyOf, change, reset, find }
}

/** As a command's key is written: "ctrl+z", "arrowup", "a". */
export function keyIn(e: KeyboardEvent): string {
  const key = e.key.toLowerCase()
  if (e.ctrlKey || e.metaKey) return `ctrl+${e.shiftKey && key === 'z' ? 'y' : key}`
  return key === '=' ? '+' : key
}

/** How a key is written on the screen. */
export function keyWords(key: string): string {
  const names: Record<string, string> = { arrowup: '↑', arrowdown: '↓', arrowleft: '←', arrowright: '→', ' ': 'Space', delete: 'Delete' }
  return key.startsWith('ctrl+') ? `Ctrl ${key.slice(5).toUpperCase()}` : (names[key] ?? key)
}
