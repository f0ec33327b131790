/** How far the server's clock is ahead of this device's, ms; small differences are none. Kept for when there is no network. */
const storedAs = 'deep-baize-clock'
const matters = 60_000

let offset = 0
let isKnown = false
try {
  offset = Number(localStorage.getItem(storedAs)) || 0
} catch {
  // Without storage the device's clock is taken as right until the server has been asked.
}

/** What is to be added to the device's time, ms. */
export const clockOffset = () => offset

/** The time, ms, by the server's clock as far as it is known. */
export const timeNow = () => Date.now() + offset

/** Asks the server for its time, once for the page. Rejected if it does not answer. */
export async function setClock(signal?: AbortSignal) {
  if (isKnown) return
  const answer = await fetch(new Request(new URL('/health', location.href), { method: 'HEAD', cache: 'no-store', signal }))
  const said = Date.parse(answer.headers.get('Date') ?? '')
  if (Number.isNaN(said)) return
  isKnown = true
  const ahead = said - Date.now()
  offset = Math.abs(ahead) < matters ? 0 : ahead
  try {
    localStorage.setItem(storedAs, String(offset))
  } catch {
    // It is asked for again by the next page.
  }
}

/** For tests: as if the page had just begun. */
export function forgetClock() {
  offset = 0
  isKnown = false
}
