import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { LocationQuery, RouteLocationNormalizedLoaded } from 'vue-router'
import { useMap } from '../features/read/map'
import { useKeeping } from '../position/keeping'
import { useJudgements, type Below, type FanKind } from '../features/shot/judgements'
import { useDraft } from '../position/draft'
import { useSaving } from '../position/saving'
import { router, unsavedAddress, type Step } from './router'

/** Which step each thing asked for belongs to, and what of the step it is. */
const places: Record<Below, { step: Step; view?: string }> = {
  on: { step: 'read' },
  happens: { step: 'shot' },
  ways: { step: 'shot', view: 'there' },
  shots: { step: 'shot', view: 'kept' },
  plan: { step: 'break' },
  decide: { step: 'safety' },
}
const fans = ['routes', 'paces', 'heights', 'sides']

export const stepOf = (below: Below): Step => places[below].step

/** What a step shows, by the address. */
export function belowOf(step: Step, view: unknown): Below {
  const of = (Object.entries(places) as [Below, { step: Step; view?: string }][]).filter(([, p]) => p.step === step)
  return (of.find(([, p]) => p.view === view) ?? of[0])[0]
}

/** The address of the table and what is shown there, kept the same: what either says, the other does. Begun once the table is set up. */
export function useTableAddress() {
  const position = useDraft()
  const saving = useSaving()
  const judgements = useJudgements()
  const map = useMap()
  const keeping = useKeeping()
  /** The step that was open last, for when the address names none. A first visit sees a break planned. */
  const lastStep = useLocalStorage<Step>('deep-baize-step', saving.isFirstVisit ? 'break' : 'shot')

  const wanted = computed(() => {
    const { step, view } = places[judgements.below]
    const query: LocationQuery = {}
    if (view) query.view = view
    if (judgements.fanKind) query.fan = judgements.fanKind
    if (judgements.spreadOpen) query.spread = '1'
    if (map.isOpen) query.map = map.target
    return { name: 'table' as const, params: { position: position.origin?.id ?? unsavedAddress, step }, query }
  })

  function follow(to: RouteLocationNormalizedLoaded) {
    if (to.name !== 'table') return
    // "/table" alone: as it was left.
    const step = to.params.step as Step | undefined
    if (!step) return bring()
    judgements.below = belowOf(step, to.query.view)
    judgements.fanKind = fans.includes(String(to.query.fan)) ? (to.query.fan as FanKind) : null
    judgements.spreadOpen = to.query.spread === '1'
    map.isOpen = typeof to.query.map === 'string' && to.query.map !== ''
    if (map.isOpen) map.target = String(to.query.map)
    bring()
  }

  /** The address as the table is: another position or step can be gone back from, what is shown with it is not a place of its own. */
  function bring() {
    const [now, to] = [router.currentRoute.value, wanted.value]
    lastStep.value = to.params.step
    const title = { read: 'Read', shot: 'Shot', break: 'Break', safety: 'Safety' }[to.params.step]
    document.title = `${position.draft.name} – ${title} – Deep Baize`
    if (now.name !== 'table' || router.resolve(to).fullPath === now.fullPath) return
    const isPlace = now.params.step && now.params.position && (now.params.step !== to.params.step || (now.params.position !== to.params.position && now.params.position !== unsavedAddress))
    void router[isPlace ? 'push' : 'replace'](to)
  }

  router.beforeEach(async (to) => {
    const id = to.params.position
    if (to.name !== 'table' || typeof id !== 'string' || !id || id === unsavedAddress || id === position.origin?.id) return true
    return keeping.openById(id)
  })
  router.afterEach((to) => {
    if (to.name !== 'table' && typeof to.meta.title === 'string') document.title = `${to.meta.title} – Deep Baize`
    follow(to)
  })
  judgements.below = belowOf(lastStep.value, undefined)
  watch([wanted, () => position.draft.name], bring)
  follow(router.currentRoute.value)
}
