import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { LocationQuery, RouteLocationNormalizedLoaded } from 'vue-router'
import { usePlans } from '../features/break'
import { useMap } from '../features/read'
import { useDecide } from '../features/safety'
import { useJudgements, type FanKind } from '../features/shot'
import { useDraft } from '../position/draft'
import { useKeeping } from '../position/keeping'
import { useSaving } from '../position/saving'
import { shotViews, useView, type ShotView, type Step } from '../position/view'
import { router, unsavedAddress } from './router'

export const stepNames: Record<Step, string> = { read: 'Read', shot: 'Shot', break: 'Break', safety: 'Safety' }
const fans = ['routes', 'paces', 'heights', 'sides', 'butts', 'aims', 'errors']

/** The address of the table and what is shown there, kept the same: what either says, the other does. Begun once the table is set up. */
export function useTableAddress() {
  const position = useDraft()
  const saving = useSaving()
  const keeping = useKeeping()
  const view = useView()
  const judgements = useJudgements()
  const map = useMap()
  const plans = usePlans()
  const decide = useDecide()
  /** The step that was open last, for when the address names none. A first visit sees a break planned. */
  const lastStep = useLocalStorage<Step>('deep-baize-step', saving.isFirstVisit ? 'break' : 'shot')

  const wanted = computed(() => {
    const query: LocationQuery = {}
    if (view.step === 'shot') {
      if (view.shotView !== 'set-up') query.view = view.shotView
      if (judgements.fanKind) query.fan = judgements.fanKind
      if (judgements.spreadOpen) query.spread = '1'
    }
    // What is chosen in a list.
    if (view.step === 'break' && plans.chosenId) Object.assign(query, { plan: plans.chosenId, shot: String(plans.shot + 1) })
    if (view.step === 'safety' && decide.chosen) query.choice = decide.chosen
    if (map.isOpen) query.map = map.target
    return { name: 'table' as const, params: { position: position.origin?.id ?? unsavedAddress, step: view.step }, query }
  })

  /** A position that came in the address; unpacked only where there is one. */
  const openLink = async (hash: string) => (await import('../position/links')).useLinks().openLink(hash)

  /** Where the address is being brought to. */
  let going = ''

  function follow(to: RouteLocationNormalizedLoaded) {
    if (to.name !== 'table') return
    if (/^#p\d+\./.test(to.hash)) void openLink(to.hash)
    // "/table" alone: as it was left.
    const step = to.params.step as Step | undefined
    if (!step) return bring()
    view.go(step, shotViews.includes(to.query.view as ShotView) ? (to.query.view as ShotView) : step === 'shot' ? 'set-up' : undefined)
    if (step === 'shot') {
      judgements.fanKind = fans.includes(String(to.query.fan)) ? (to.query.fan as FanKind) : null
      judgements.spreadOpen = to.query.spread === '1'
    }
    if (step === 'break' && typeof to.query.plan === 'string') plans.lookOnce(to.query.plan, Number(to.query.shot) - 1 || 0)
    if (step === 'safety') decide.chooseOnce(typeof to.query.choice === 'string' ? to.query.choice : '')
    map.isOpen = typeof to.query.map === 'string' && to.query.map !== ''
    if (map.isOpen) map.target = String(to.query.map)
    bring()
  }

  /** The address as the table is: another position or step can be gone back from, what is shown with it is not a place of its own. */
  function bring() {
    const [now, to] = [router.currentRoute.value, wanted.value]
    if (now.name !== 'table') return
    lastStep.value = to.params.step
    document.title = `${position.draft.name} – ${stepNames[to.params.step]} – Deep Baize`
    const path = router.resolve(to).fullPath
    if (path === now.fullPath || path === going) return
    going = path
    const isOther =
      now.params.step !== to.params.step || (now.params.position !== to.params.position && now.params.position !== unsavedAddress)
    void router[now.params.step && now.params.position && isOther ? 'push' : 'replace'](to)
  }

  router.beforeEach(async (to) => {
    const id = to.params.position
    if (to.name !== 'table' || typeof id !== 'string' || !id || id === unsavedAddress || id === position.origin?.id) return true
    return keeping.openById(id)
  })
  router.afterEach((to, _, failure) => {
    going = ''
    // One that was overtaken by another is none.
    if (failure) return
    if (to.name !== 'table' && typeof to.meta.title === 'string') document.title = `${to.meta.title} – Deep Baize`
    follow(to)
  })
  view.go(lastStep.value)
  watch([wanted, () => position.draft.name], bring)
  // What is opened is gone to, wherever it was opened from.
  watch(
    () => position.opened,
    () => {
      if (router.currentRoute.value.name !== 'table') void router.push(wanted.value)
    },
  )
  follow(router.currentRoute.value)
}
