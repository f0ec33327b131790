import { useDebounceFn, useEventListener, useLocalStorage, useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, toRaw, watch } from 'vue'
import { ask, client, Problem, type Draft, type SavedPosition } from '../api/client'
import { copy, draftOf, ofFirstScale, plainStroke } from '../domain/strokes'
import { useNotices } from '../lib/notices'
import { useDraft, type Origin } from './draft'
import { useClub } from './club'
import { useUnsavedTabs } from './unsavedTabs'

type Left = { draft: Draft; origin: Origin; isOnlyLookedAt?: boolean; paces?: 2 }
/** What was left before paces were on the present scale keeps its speed; the server has done the same with what is saved. */
function asOfNow(left: Left | null): Left | null {
  if (left && left.paces !== 2)
    for (const draft of [left.draft, left.origin?.draft]) if (draft) draft.content.stroke = ofFirstScale(draft.content.stroke)
  return left
}

const asJson = {
  shallow: true,
  flush: 'sync' as const,
  serializer: {
    read: (text: string) => (text ? asOfNow(JSON.parse(text) as Left | null) : null),
    write: (value: Left | null) => JSON.stringify(value && { ...value, paces: 2 }),
  },
}

/** Where the position comes from and goes to: the server, and what this browser keeps of what is not saved. */
export const useSaving = defineStore('saving', () => {
  const position = useDraft()
  const club = useClub()
  const notices = useNotices()

  /** Kept for this tab, so that a reload loses nothing that was not saved. */
  const kept = useSessionStorage<Left | null>('deep-baize-draft', null, asJson)
  /** What is not saved, for when the tab is closed: each tab keeps its own. */
  const unsaved = useUnsavedTabs<Left>()
  const lastOpened = useLocalStorage<string>('deep-baize-last', '')
  /** Nothing has been opened here before. */
  const isFirstVisit = !kept.value && !lastOpened.value

  // ---- Opening ---------------------------------------------------------------------------------------------------

  /** @param id The position that the address names, if it names one. */
  /** Whether nothing has been saved here by anybody: somebody has to begin. */
  const isNewClub = ref(false)

  async function start(id?: string) {
    const left = kept.value?.draft?.content?.balls.length && (!id || kept.value.origin?.id === id) ? kept.value : null
    const [known, , saved] = await Promise.all([ask(client.GET('/api/reference')), club.load(), left ? null : first(id)])
    position.reference = known
    if (left) return position.reset(left.draft, left.origin, left.isOnlyLookedAt)
    if (saved) open(saved)
    else startNew()
    if (!id) bringBack()
  }

  /** What is opened first: what the address names, what was open last, or, on a first visit, a break under way. */
  async function first(id?: string): Promise<SavedPosition | null> {
    for (const known of [id, lastOpened.value].filter(Boolean) as string[]) {
      try {
        return await ask(client.GET('/api/positions/{id}', { params: { path: { id: known } } }))
      } catch (e) {
        if (!(e instanceof Problem) || e.isAway) throw e
        if (known === id)
          notices.show({
            kind: 'error',
            text: 'There is no position at this address.',
            detail: 'It may have been deleted. Another is shown.',
          })
      }
    }
    const positions = await ask(client.GET('/api/positions'))
    isNewClub.value = !positions.length
    const shown = positions.find((p) => p.break > 1) ?? positions[0]
    return shown ? ask(client.GET('/api/positions/{id}', { params: { path: { id: shown.id } } })) : null
  }

  /** What was not saved when tabs were closed comes back: the latest is opened, and can be put aside; the others are offered. */
  function bringBack() {
    const [latest, ...others] = unsaved.left()
    if (!latest) return
    for (const other of others.slice(0, 4))
      notices.show(
        {
          kind: 'info',
          text: `“${other.value.draft.name}” was not saved either.`,
          action: { label: 'Open it', run: () => takeBack(other) },
        },
        0,
      )
    takeBack(latest)
  }

  function takeBack({ tab, value }: { tab: string; value: Left }) {
    const left = asOfNow(value)!
    unsaved.forget(tab)
    const instead = { draft: copy(toRaw(position.draft)), origin: position.origin }
    position.reset(left.draft, left.origin)
    notices.show({
      kind: 'info',
      text: `“${left.draft.name}” was not saved. It is as you left it.`,
      action: { label: 'Discard', run: () => position.reset(instead.draft, instead.origin) },
    })
  }

  function open(saved: SavedPosition) {
    const as = draftOf(saved)
    position.reset(as, { id: saved.id, version: saved.version, draft: as })
    lastOpened.value = saved.id
  }

  /** The balls as at the start of a frame, not yet saved. */
  function startNew() {
    position.reset(
      {
        name: 'New position',
        about: '',
        content: { balls: copy(position.reference!.openingRack), stroke: copy(plainStroke), conditions: { ...club.conditions } },
      },
      null,
    )
  }

  // ---- What this browser keeps -----------------------------------------------------------------------------------

  /** Not at every step of a drag: writing takes its time from drawing. */
  const keepSoon = useDebounceFn(keep, 200, { maxWait: 1000 })
  function keep() {
    if (!position.content.balls.length) return
    kept.value = {
      draft: copy(toRaw(position.draft)),
      origin: position.origin,
      isOnlyLookedAt: position.hasChanged && !position.isDirty,
      paces: 2,
    }
    // A position that was only looked at, or set up anew and not touched, is nothing to bring back.
    unsaved.keep(position.isDirty && position.canUndo ? kept.value : null)
  }
  watch([() => position.draft, () => position.origin], () => void keepSoon(), { deep: true })
  useEventListener(window, 'pagehide', () => {
    keep()
    unsaved.leave()
  })

  // ---- Saving ----------------------------------------------------------------------------------------------------

  /** What was sent is what is saved: typed since, it is not; and if another position lies there by now, it is none of its business. */
  async function keepAs(sent: Draft, request: (body: Draft) => Promise<SavedPosition>, isAbout: () => boolean) {
    const saved = await request(sent)
    if (!isAbout()) return
    position.cameFrom({ id: saved.id, version: saved.version, draft: sent })
    lastOpened.value = saved.id
  }

  async function saveAs(name: string) {
    position.commit()
    const [before, about] = [position.origin, position.opened]
    const sent = { ...copy(toRaw(position.draft)), name }
    await keepAs(
      sent,
      (body) => ask(client.POST('/api/positions', { body })),
      () => position.opened === about && position.origin?.id === before?.id,
    )
    if (position.origin?.draft === sent) position.rename(name)
  }

  /** Saves over what was opened; a Problem with status 409 if somebody else has saved it since. */
  async function save(version = position.origin?.version) {
    if (!position.origin || version === undefined) return saveAs(position.draft.name)
    position.commit()
    const [id, about] = [position.origin.id, position.opened]
    await keepAs(
      copy(toRaw(position.draft)),
      (body) => ask(client.PUT('/api/positions/{id}', { params: { path: { id } }, body: { ...body, version } })),
      () => position.opened === about && position.origin?.id === id,
    )
  }

  return { isFirstVisit, isNewClub, start, open, startNew, save, saveAs }
})
