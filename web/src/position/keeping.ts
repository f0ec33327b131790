import { ref } from 'vue'
import { defineStore } from 'pinia'
import { ask, client, exchange, fetchFile, Problem, type SavedPosition } from '../api/client'
import { askName } from '../ui/askName'
import { useNotices } from '../lib/notices'
import { useAttempt } from '../lib/useAttempt'
import { copy, draftOf } from '../domain/strokes'
import { useDraft } from './draft'
import { useSaving } from './saving'

const whatItIsCalled = 'Name of the position'

/** Saving, opening, renaming, deleting, files: everything that leaves the page, with what to do when it fails. */
export const useKeeping = defineStore('keeping', () => {
  const position = useDraft()
  const saving = useSaving()
  const notices = useNotices()
  /** The newer one, when somebody else has saved it since. */
  const conflict = ref<SavedPosition | null>(null)
  const { busy, attempt: run } = useAttempt((problem) => {
    if (problem.status !== 409 || !problem.current) return false
    conflict.value = problem.current
    return true
  })

  /** One at a time: pressed twice, a save would be in conflict with itself. */
  async function attempt(what: () => Promise<void>, failed: string) {
    if (!busy.value) await run(what, failed)
  }

  /** What is changed in a list: of a newer one there is no choice to make but to look at it first. */
  async function attemptIn(list: () => void, what: () => Promise<void>, failed: string) {
    if (busy.value) return
    await run(
      () =>
        what().catch((e: unknown) => {
          if (!(e instanceof Problem) || e.status !== 409 || !e.current) throw e
          list()
          notices.show({ kind: 'error', text: `${failed}: “${e.current.name}” was changed elsewhere. Check it and try again.` })
        }),
      failed,
    )
  }

  const said = (text: string) => notices.show({ kind: 'info', text })

  /** It is saved in any case; where a frame is kept that its balls cannot be, that is said with the press that mends it. */
  async function saidSaved(text: string) {
    const about = position.opened
    const fault = await faultOfFrame()
    if (!fault) return void said(text)
    // Pressed when another position is open, it is none of its business.
    const action = { label: 'Make it an exercise', run: () => position.opened === about && position.makeExercise() }
    notices.show({ kind: 'info', text: `${text} It is not a valid frame: ${fault}`, action })
  }

  async function faultOfFrame(): Promise<string | null> {
    const content = copy(position.content)
    if (!content.frame) return null
    try {
      await ask(client.POST('/api/frame', { body: { content } }))
    } catch (e) {
      if (e instanceof Problem) return e.errors.find((x) => x.field.startsWith('frame'))?.message ?? null
      throw e
    }
    return null
  }

  function save() {
    if (!position.origin) return saveAs()
    return attempt(async () => {
      await saving.save()
      await saidSaved(`Saved “${position.draft.name}”.`)
    }, 'Could not save it')
  }

  async function saveAs() {
    const name = await askName('Save as', position.origin ? `${position.draft.name} (2)` : position.draft.name, whatItIsCalled)
    if (!name) return
    await attempt(async () => {
      await saving.saveAs(name)
      await saidSaved(`Saved as “${name}”.`)
    }, 'Could not save it')
  }

  async function rename(saved: { id: string; name: string; version: number }, after: () => void) {
    const name = await askName('Rename', saved.name, whatItIsCalled)
    if (!name) return
    await attemptIn(
      after,
      async () => {
        const isOpen = position.origin?.id === saved.id
        const version = isOpen ? position.origin!.version : saved.version
        const renamed = await ask(client.PATCH('/api/positions/{id}', { params: { path: { id: saved.id } }, body: { name, version } }))
        // Another may have been opened since.
        if (position.origin?.id === saved.id) {
          position.rename(name)
          position.cameFrom({ ...position.origin, version: renamed.version, draft: { ...position.origin.draft, name } })
        }
        said(`Renamed to “${name}”.`)
        after()
      },
      'Could not rename it',
    )
  }

  function remove(saved: { id: string; name: string; version: number }, after: () => void) {
    return attemptIn(
      after,
      async () => {
        const version = position.origin?.id === saved.id ? position.origin.version : saved.version
        await ask(client.DELETE('/api/positions/{id}', { params: { path: { id: saved.id }, query: { version } } }))
        // What is on the table stays there, as something not yet saved.
        if (position.origin?.id === saved.id) position.cameFrom(null)
        after()
        notices.show({
          kind: 'info',
          text: `“${saved.name}” is in the bin.`,
          action: { label: 'Undo', run: () => void restore(saved.id, after) },
        })
      },
      'Could not delete it',
    )
  }

  function restore(id: string, after: () => void) {
    return attempt(async () => {
      const back = await ask(client.POST('/api/positions/{id}/restore', { params: { path: { id } } }))
      if (!position.origin && JSON.stringify(draftOf(back)) === JSON.stringify(position.draft)) saving.open(back)
      said(`“${back.name}” is back.`)
      after()
    }, 'Could not restore it')
  }

  /** Whether the table may be cleared for something else. */
  async function mayLeave(): Promise<boolean> {
    if (!position.isDirty) return true
    try {
      const { ElMessageBox } = await import('../ui/messageBox')
      await ElMessageBox.confirm(`“${position.draft.name}” has unsaved changes.`, 'Leave without saving?', {
        confirmButtonText: 'Save first',
        cancelButtonText: 'Leave without saving',
        distinguishCancelAndClose: true,
      })
      await save()
      return !position.isDirty
    } catch (action) {
      return action === 'cancel'
    }
  }

  /** Opens what an address or a list names; says whether it is there now. */
  async function openById(id: string): Promise<boolean> {
    if (!(await mayLeave())) return false
    let isThere = false
    await attempt(async () => {
      saving.open(await ask(client.GET('/api/positions/{id}', { params: { path: { id } } })))
      isThere = true
    }, 'Could not open it')
    return isThere
  }

  async function startNew() {
    if (!(await mayLeave())) return
    saving.startNew()
  }

  // ---- Two saves of the same position ---------------------------------------------------------------------------

  function dropConflict() {
    conflict.value = null
  }

  function keepBoth() {
    conflict.value = null
    return saveAs()
  }

  function takeNewer() {
    if (conflict.value) saving.open(conflict.value)
    conflict.value = null
  }

  function saveOver() {
    const version = conflict.value?.version
    conflict.value = null
    return attempt(async () => {
      await saving.save(version)
      said(`Saved “${position.draft.name}”.`)
    }, 'Could not save it')
  }

  // ---- Files ----------------------------------------------------------------------------------------------------

  function download(data: Blob, ending: string, name = position.draft.name) {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(data)
    link.download = `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'position'}.${ending}`
    link.click()
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
  }

  const exportJson = () =>
    attempt(async () => download(await fetchFile('/api/positions/export/json', position.draft), 'json'), 'Could not export it')

  const exportSvg = () =>
    attempt(async () => download(await fetchFile('/api/positions/export/svg', position.draft), 'svg'), 'Could not export it')

  async function importFile(file: File, after: () => void) {
    if (!(await mayLeave())) return
    const text = await file.text()
    await attempt(async () => {
      const saved = JSON.parse(await exchange('/api/positions/import', text)) as SavedPosition
      saving.open(saved)
      said(`Imported “${saved.name}”.`)
      after()
    }, `“${file.name}” could not be imported`)
  }

  return {
    conflict,
    busy,
    save,
    saveAs,
    rename,
    remove,
    restore,
    openById,
    startNew,
    dropConflict,
    keepBoth,
    takeNewer,
    saveOver,
    exportJson,
    exportSvg,
    importFile,
    download,
  }
})
