import { ref } from 'vue'
import { defineStore } from 'pinia'
import { ElMessageBox } from 'element-plus'
import { router, unsavedAddress } from '../app/router'
import { ask, client, exchange, fetchFile, type SavedPosition } from '../api/client'
import { useNotices } from '../workspace/notices'
import { useAttempt } from '../workspace/useAttempt'
import { draftOf, useWorkspace } from '../workspace/workspace'

/** Saving, opening, renaming, deleting, files: everything that leaves the page, with what to do when it fails. */
export const useKeeping = defineStore('keeping', () => {
  const workspace = useWorkspace()
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

  const said = (text: string) => notices.show({ kind: 'info', text })

  function save() {
    if (!workspace.origin) return saveAs()
    return attempt(async () => {
      await workspace.save()
      said(`Saved “${workspace.draft.name}”.`)
    }, 'Not saved')
  }

  async function askName(title: string, name: string): Promise<string | null> {
    try {
      const { value } = await ElMessageBox.prompt('', title, {
        inputValue: name,
        inputPlaceholder: 'What the position is called',
        inputValidator: (text: string) => (text?.trim() ? (text.trim().length <= 120 ? true : 'At most 120 characters.') : 'A name is needed.'),
        confirmButtonText: title,
        cancelButtonText: 'Cancel',
      })
      return value.trim()
    } catch {
      return null
    }
  }

  async function saveAs() {
    const name = await askName('Save as', workspace.origin ? `${workspace.draft.name} (2)` : workspace.draft.name)
    if (!name) return
    await attempt(async () => {
      await workspace.saveAs(name)
      said(`Saved as “${name}”.`)
    }, 'Not saved')
  }

  async function rename(position: { id: string; name: string; version: number }, after: () => void) {
    const name = await askName('Rename', position.name)
    if (!name) return
    await attempt(async () => {
      const isOpen = workspace.origin?.id === position.id
      const version = isOpen ? workspace.origin!.version : position.version
      const renamed = await ask(client.PATCH('/api/positions/{id}', { params: { path: { id: position.id } }, body: { name, version } }))
      // Another may have been opened since.
      if (workspace.origin?.id === position.id) {
        workspace.draft.name = name
        workspace.origin = { ...workspace.origin!, version: renamed.version, draft: { ...workspace.origin!.draft, name } }
      }
      said(`Renamed to “${name}”.`)
      after()
    }, 'Not renamed')
  }

  function remove(position: { id: string; name: string }, after: () => void) {
    return attempt(async () => {
      await ask(client.DELETE('/api/positions/{id}', { params: { path: { id: position.id } } }))
      // What is on the table stays there, as something not yet saved.
      if (workspace.origin?.id === position.id) workspace.origin = null
      after()
      notices.show({ kind: 'info', text: `“${position.name}” is in the bin.`, action: { label: 'Undo', run: () => void restore(position.id, after) } })
    }, 'Not deleted')
  }

  function restore(id: string, after: () => void) {
    return attempt(async () => {
      const back = await ask(client.POST('/api/positions/{id}/restore', { params: { path: { id } } }))
      if (!workspace.origin && JSON.stringify(draftOf(back)) === JSON.stringify(workspace.draft)) workspace.open(back)
      said(`“${back.name}” is back.`)
      after()
    }, 'Not restored')
  }

  /** Whether the table may be cleared for something else. */
  async function mayLeave(): Promise<boolean> {
    if (!workspace.isDirty) return true
    try {
      await ElMessageBox.confirm(`“${workspace.draft.name}” has changes that are not saved.`, 'Leave it?', {
        confirmButtonText: 'Save first',
        cancelButtonText: 'Leave the changes',
        distinguishCancelAndClose: true,
      })
      await save()
      return !workspace.isDirty
    } catch (action) {
      return action === 'cancel'
    }
  }

  async function open(position: SavedPosition) {
    if (!(await mayLeave())) return
    workspace.open(position)
    toTable()
  }

  /** Opens what an address names; says whether it is there now. */
  async function openById(id: string): Promise<boolean> {
    if (!(await mayLeave())) return false
    let isThere = false
    await attempt(async () => {
      workspace.open(await ask(client.GET('/api/positions/{id}', { params: { path: { id } } })))
      isThere = true
    }, 'Not opened')
    return isThere
  }

  /** Where it lies now, in the step that was open. */
  const toTable = () => void router.push({ name: 'table', params: { position: workspace.origin?.id ?? unsavedAddress } })

  async function startNew() {
    if (!(await mayLeave())) return
    workspace.startNew()
    toTable()
  }

  // ---- Two saves of the same position ---------------------------------------------------------------------------

  function keepBoth() {
    conflict.value = null
    return saveAs()
  }

  function takeNewer() {
    if (conflict.value) workspace.open(conflict.value)
    conflict.value = null
  }

  function saveOver() {
    const version = conflict.value?.version
    conflict.value = null
    return attempt(async () => {
      await workspace.save(version)
      said(`Saved “${workspace.draft.name}”.`)
    }, 'Not saved')
  }

  // ---- Files ----------------------------------------------------------------------------------------------------

  function download(data: Blob, ending: string, name = workspace.draft.name) {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(data)
    link.download = `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'position'}.${ending}`
    link.click()
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
  }

  const exportJson = () =>
    attempt(async () => download(await fetchFile('/api/positions/export/json', workspace.draft), 'json'), 'Not exported')

  const exportSvg = () =>
    attempt(async () => download(await fetchFile('/api/positions/export/svg', workspace.draft), 'svg'), 'Not exported')

  async function importFile(file: File, after: () => void) {
    if (!(await mayLeave())) return
    const text = await file.text()
    await attempt(async () => {
      const saved = JSON.parse(await exchange('/api/positions/import', text)) as SavedPosition
      workspace.open(saved)
      toTable()
      said(`Imported “${saved.name}”.`)
      after()
    }, `“${file.name}” is not imported`)
  }

  return {
    conflict, busy, save, saveAs, rename, remove, restore, open, openById, startNew,
    keepBoth, takeNewer, saveOver, exportJson, exportSvg, importFile, download,
  }
})
