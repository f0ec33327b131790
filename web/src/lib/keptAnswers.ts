import { useEventListener } from '@vueuse/core'

/** The shapes of the API when the page was built: an answer of another shape is not read back. */
declare const __API__: string

type Kept = { value: unknown; isWhole: boolean }

/** Number of answers kept, and what the session's storage takes of them, characters. */
const mostKept = 80
const mostStored = 2_000_000
const storedAs = 'deep-baize-answers'

/** By question, the least recently used first. */
const memory = new Map<string, Kept>()
let isRead = false

function read() {
  if (isRead) return
  isRead = true
  try {
    const stored = JSON.parse(sessionStorage.getItem(storedAs) ?? 'null') as { api: string; answers: [string, Kept][] } | null
    if (stored?.api === __API__) for (const [key, kept] of stored.answers) if (!memory.has(key)) memory.set(key, kept)
  } catch {
    // Nothing can be read back: it is asked for again.
  }
}

const keyOf = (kind: string, question: string) => `${kind} ${question}`

/** The answer to a question that was found before, in this tab; null if there is none. */
export function keptAnswer<T>(kind: string, question: string): { value: T; isWhole: boolean } | null {
  read()
  const key = keyOf(kind, question)
  const kept = memory.get(key)
  if (!kept) return null
  memory.delete(key)
  memory.set(key, kept)
  return kept as { value: T; isWhole: boolean }
}

/**
 * Keeps an answer by its question.
 * @param isWhole Whether the search is over; what is only a part is shown until there is more.
 */
export function keepAnswer(kind: string, question: string, value: unknown, isWhole: boolean) {
  read()
  const key = keyOf(kind, question)
  memory.delete(key)
  memory.set(key, { value, isWhole })
  if (memory.size > mostKept) memory.delete(memory.keys().next().value!)
}

/** Forgets the answers of a kind, or all: what they stand on has changed. */
export function forgetAnswers(kind = '') {
  read()
  for (const key of memory.keys()) if (!kind || key.startsWith(`${kind} `)) memory.delete(key)
}

/** Writes the newest answers for a reload, as many as there is room for. */
export function storeAnswers() {
  const newest: [string, Kept][] = []
  let size = 0
  for (const entry of [...memory].reverse()) {
    size += JSON.stringify(entry).length
    if (size > mostStored) break
    newest.unshift(entry)
  }
  try {
    sessionStorage.setItem(storedAs, JSON.stringify({ api: __API__, answers: newest }))
  } catch {
    // The storage is full or forbidden: after a reload it is asked for again.
  }
}

if (typeof window !== 'undefined') useEventListener(window, 'pagehide', storeAnswers)
