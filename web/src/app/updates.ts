import { ref } from 'vue'
import type { Router } from 'vue-router'
import { useNotices } from '../lib/notices'

/** A newer page is there; it is taken when somebody asks for it, and by itself at the next opening. */
export const isUpdateReady = ref(false)

let take = () => location.reload()

/** Loads the newer page. What is not saved is kept for the tab. */
export const takeUpdate = () => take()

/** A newer page waits. */
export function offerUpdate(how: () => void) {
  take = how
  isUpdateReady.value = true
}

/** A page that is opened takes a newer one that waits, before anything is done with it. */
export async function takeAtOpening() {
  const waiting = (await navigator.serviceWorker?.getRegistration())?.waiting
  if (!waiting) return
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true })
  waiting.postMessage({ type: 'SKIP_WAITING' })
}

const loadedFor = 'deep-baize-loaded-for'
/** A page that was loaded anew for the same reason so short a time ago does not help, ms. */
const soon = 20_000

/** A piece of the page is not there any more, for there is a newer one: that is loaded. */
function loadAnew(to: string) {
  const [path, at] = (sessionStorage.getItem(loadedFor) ?? '').split(' ')
  if (path === to && Date.now() - Number(at) < soon) {
    useNotices().show({
      kind: 'error',
      text: 'Part of the page could not be loaded.',
      detail: 'Your changes are still here. Try again in a moment.',
      action: { label: 'Try again', run: () => location.assign(to) },
    })
    return
  }
  sessionStorage.setItem(loadedFor, `${to} ${Date.now()}`)
  location.assign(to)
}

const isMissingPiece = (fault: unknown) =>
  fault instanceof Error && /dynamically imported module|module script|preload|error loading/i.test(fault.message)

/** Sees to pieces of the page that are gone after an update: nothing that is clicked does nothing. */
export function loadMissingPieces(router: Router) {
  let going = ''
  router.beforeEach((to) => void (going = to.fullPath))
  router.afterEach(() => void (going = ''))
  router.onError((fault, to) => {
    if (isMissingPiece(fault)) loadAnew(to.fullPath)
  })
  window.addEventListener('vite:preloadError', (e) => {
    // The router sees to its own.
    if (going) return
    e.preventDefault()
    loadAnew(location.pathname + location.search)
  })
}
