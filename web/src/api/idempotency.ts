/**
 * What creates something is sent with a key (Idempotency-Key). The answer may be lost on the way: asked again, with the same contents, it
 * goes with the same key, and the server creates nothing twice. Kept for the tab, so that a reload does not forget it.
 */
const creating = /^\/api\/(positions|frames)(\/import|\/[^/]+\/(shots|plans))?$|^\/api\/(players|tables|cues|guesses|escape\/corrections)$/
/** Whether what is posted there makes something new. */
export const creates = (path: string) => creating.test(path)

const storageKey = 'deep-baize-unanswered'
const mostKept = 20

const unanswered = (): Record<string, string> => {
  try {
    return JSON.parse(sessionStorage.getItem(storageKey) ?? '{}') as Record<string, string>
  } catch {
    return {}
  }
}

function remember(request: string, key: string | null) {
  const kept = Object.entries(unanswered())
    .filter(([name]) => name !== request)
    .slice(-mostKept)
  try {
    sessionStorage.setItem(storageKey, JSON.stringify(Object.fromEntries(key ? [...kept, [request, key]] : kept)))
  } catch {
    // Without storage the key is new each time, as if there were none.
  }
}

/** Works where crypto.randomUUID does not: on a page that did not come by https. */
export const newKey = () => Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, '0')).join('')

/** A short name for what is sent: the same contents have the same one. */
async function nameOf(request: Request): Promise<string> {
  let hash = 0xcbf29ce484222325n
  for (const byte of new Uint8Array(await request.clone().arrayBuffer())) hash = BigInt.asUintN(64, (hash ^ BigInt(byte)) * 0x100000001b3n)
  return `${new URL(request.url).pathname} ${hash.toString(36)}`
}

/** As fetch, with a key where something is created. */
export async function sendOnce(request: Request): Promise<Response> {
  if (request.method !== 'POST' || !creates(new URL(request.url).pathname)) return globalThis.fetch(request)
  const name = await nameOf(request)
  const key = unanswered()[name] ?? newKey()
  remember(name, key)
  request.headers.set('Idempotency-Key', key)
  const response = await globalThis.fetch(request)
  // Whatever it was, it is an answer; only of one that may not have come from the application itself is that not known.
  if (response.status < 500) remember(name, null)
  return response
}
