import { registerSW } from 'virtual:pwa-register'
import { offerUpdate } from './updates'

/**
 * The page and what is needed at the table without a network: kept by a service worker, from the first visit to practice on. A newer one
 * waits until it is asked for, so that nothing is taken away under the hand.
 */
let isAsked = false
export function keepPage() {
  if (isAsked || !('serviceWorker' in navigator)) return
  isAsked = true
  const update = registerSW({
    onRegisteredSW() {
      void navigator.serviceWorker.ready.then(fetchAnswers)
    },
    onNeedRefresh() {
      offerUpdate(() => void update(true))
    },
  })
}

/** What the page begins with was asked for before the worker was there: once more, through it. */
function fetchAnswers() {
  const last = localStorage.getItem('deep-baize-last')
  const paths = ['/api/reference', '/api/in-hand', '/api/positions', ...(last ? [`/api/positions/${last}`] : [])]
  const ask = () => paths.forEach((path) => void fetch(path).catch(() => {}))
  if (navigator.serviceWorker.controller) ask()
  else navigator.serviceWorker.addEventListener('controllerchange', ask, { once: true })
}
