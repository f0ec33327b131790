import { tryOnScopeDispose, useEventListener } from '@vueuse/core'
import { newId } from '../lib/device'

/** What each tab has that is not saved, so that all of it comes back: kept beside one another, by the tab. */
type Entry<T> = { value: T; /** When the tab was last known to be open, ms. */ seen: number; isLeft: boolean }

const storedAs = 'deep-baize-unsaved-tabs'
/** Where an earlier version kept what the last tab had. */
const storedBefore = 'deep-baize-unsaved'
const tabAs = 'deep-baize-tab'
/** A tab that has not been heard of for so long has ended without a word, ms. */
const lost = 30_000
const heartbeat = 10_000

const read = <T>(): Record<string, Entry<T>> => {
  try {
    return JSON.parse(localStorage.getItem(storedAs) ?? '{}') as Record<string, Entry<T>>
  } catch {
    return {}
  }
}
const write = (all: object) => {
  try {
    localStorage.setItem(storedAs, JSON.stringify(all))
  } catch {
    // A full or forbidden storage: the tab itself still has it.
  }
}

const isOpen = (entry: Entry<unknown>) => !entry.isLeft && Date.now() - entry.seen < lost

/** This tab's own name, the same over a reload; a copy of a tab gets another. */
function nameOfTab(): string {
  const known = sessionStorage.getItem(tabAs)
  const entry = known ? read()[known] : undefined
  const isCopy = !!entry && isOpen(entry)
  const name = known && !isCopy ? known : newId()
  sessionStorage.setItem(tabAs, name)
  return name
}

/** Keeps what this tab has not saved, and finds what tabs that are closed by now have left. */
export function useUnsavedTabs<T>() {
  const tab = nameOfTab()
  const beat = (isLeft: boolean) => {
    const all = read<T>()
    if (all[tab]) write({ ...all, [tab]: { ...all[tab], seen: Date.now(), isLeft } })
  }

  /** Keeps it for when the tab is closed; null: there is nothing that is not saved. */
  function keep(value: T | null) {
    const { [tab]: before, ...others } = read<T>()
    if (value) write({ ...others, [tab]: { value, seen: Date.now(), isLeft: false } })
    else if (before) write(others)
  }

  /** What closed tabs have left, the latest first. */
  function left(): { tab: string; value: T }[] {
    return Object.entries(read<T>())
      .filter(([name, entry]) => name !== tab && !isOpen(entry))
      .sort(([, a], [, b]) => b.seen - a.seen)
      .map(([name, entry]) => ({ tab: name, value: entry.value }))
  }

  /** It has come back, or is wanted no more. */
  function forget(name: string) {
    const all = read<T>()
    delete all[name]
    write(all)
  }

  // It was one for all tabs.
  const single = localStorage.getItem(storedBefore)
  if (single) write({ ...read(), [newId()]: { value: JSON.parse(single) as T, seen: 0, isLeft: true } })
  localStorage.removeItem(storedBefore)

  useEventListener(window, 'pageshow', () => beat(false))
  const timer = setInterval(() => beat(false), heartbeat)
  tryOnScopeDispose(() => clearInterval(timer))

  /** The tab is closed, or left for another page. */
  const leave = () => beat(true)

  return { keep, left, forget, leave }
}
