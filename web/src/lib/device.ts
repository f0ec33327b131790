import { Problem } from '../api/client'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

interface Kept extends DBSchema {
  /** What is to be sent, in the order in which it was made (lib/outbox). */
  outbox: { key: number; value: { session: string }; indexes: { session: string } }
  sessions: { key: string; value: unknown }
  /** Answers of the server that are needed at the table, by address. */
  answers: { key: string; value: unknown }
}

let opened: Promise<IDBPDatabase<Kept>> | null = null

/** Longer than this nobody waits for the device's store: it is gone without then, ms. */
const patience = 3000

async function open(): Promise<IDBPDatabase<Kept>> {
  const opening = openDB<Kept>('deep-baize', 1, {
    upgrade(db) {
      db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true }).createIndex('session', 'session')
      db.createObjectStore('sessions')
      db.createObjectStore('answers')
    },
    // Somebody clears what this site keeps: a connection that stays open would hold that up, and every one that is opened after it.
    blocking(_current, _blocked, event) {
      ;(event.target as IDBDatabase).close()
      opened = null
    },
    terminated() {
      opened = null
    },
  })
  let isLate = false
  const timer = new Promise<never>((_, refuse) =>
    setTimeout(() => {
      isLate = true
      refuse(new Error('The device’s store does not open.'))
    }, patience),
  )
  void opening.then((db) => isLate && db.close()).catch(() => {})
  return Promise.race([opening, timer])
}

/** The device's store; rejected if it cannot be opened, or not in time. The next call tries again. */
export const device = () =>
  (opened ??= open().catch((e: unknown) => {
    opened = null
    throw e
  }))

/** Something done with the device's store; rejected if that fails, or does not come back in time. */
export async function onDevice<T>(job: (db: IDBPDatabase<Kept>) => Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, refuse) => {
    timer = setTimeout(() => refuse(new Error('The device’s store does not answer.')), patience)
  })
  try {
    return await Promise.race([device().then(job), late])
  } finally {
    clearTimeout(timer)
  }
}

/** An id that is nobody else's: a random UUID, version 4, made where crypto.randomUUID is not to be had. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = (bytes[6] & 0x0f) | 0x40
  bytes[8] = (bytes[8] & 0x3f) | 0x80
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}

/** This device's own name: of two devices that correct one attempt the second is told. Made anew where nothing can be kept. */
let ownName = ''
export function deviceName(): string {
  const key = 'deep-baize-device'
  try {
    ownName ||= localStorage.getItem(key) ?? newId()
    localStorage.setItem(key, ownName)
  } catch {
    ownName ||= newId()
  }
  return ownName
}

const isAway = (e: unknown) => e instanceof Problem && e.isAway

/**
 * What the server answers, kept for when it does not: the newest that came.
 * @param isEnough What has to go wrong for the kept answer to stand in; the server away, if not said.
 */
export async function kept<T>(name: string, ask: () => Promise<T>, isEnough = isAway): Promise<T> {
  try {
    const answer = await ask()
    // A device that keeps nothing works as long as there is a network.
    void onDevice((db) => db.put('answers', answer, name)).catch(() => {})
    return answer
  } catch (e) {
    if (!isEnough(e)) throw e
    const last = await onDevice((db) => db.get('answers', name)).catch(() => undefined)
    if (last === undefined) throw e
    return last as T
  }
}
