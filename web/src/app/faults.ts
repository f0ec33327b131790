import type { App } from 'vue'
import { isAbort, Problem } from '../api/client'
import { useNotices } from '../lib/notices'
import { detailOf, titleOf } from '../lib/problemWords'

/** What nobody has seen to: told once, instead of a page that silently stands still. A request given up by the page itself is none. */
export function tell(fault: unknown) {
  if (isAbort(fault)) return
  console.error(fault)
  const notices = useNotices()
  if (fault instanceof Problem) notices.show({ kind: 'error', text: titleOf(fault), detail: detailOf(fault) })
  else
    notices.show({
      kind: 'error',
      text: 'Something in the page went wrong.',
      detail: 'What you were editing is still here: save it, then reload.',
      action: { label: 'Reload', run: () => location.reload() },
    })
}

export function reportFaults(app: App) {
  app.config.errorHandler = (fault) => tell(fault)
  window.addEventListener('unhandledrejection', (e) => {
    e.preventDefault()
    tell(e.reason)
  })
}
