import { useEventListener } from '@vueuse/core'
import { useDraft } from '../../position/draft'
import { router } from '../router'
import { useCommands } from './commands'
import { keyIn, useKeys } from './keys'

/** A dialog, a drawer or the tour lies over the page: nothing beneath it is meant. */
const isCovered = () =>
  [...document.querySelectorAll('.el-overlay, .el-drawer, .el-tour__mask')].some((o) => !o.closest('[style*="display: none"]'))

/** What takes these keys for itself while it has the focus: to be pressed, or to go through a list. */
const pressed =
  'button, a, summary, select, [role=button], [role=option], [role=radio], [role=tab], [role=slider], [role=menuitem], input[type=range], input[type=radio], input[type=checkbox], table, li[tabindex]'
const ownKeys = new Set([' ', 'enter', 'delete', 'arrowup', 'arrowdown', 'arrowleft', 'arrowright'])

/** At another place the table is out of sight. */
const isElsewhere = () => ![undefined, 'table'].includes(router.currentRoute.value.name as string)

/** The keyboard does what the mouse does. Keys typed into a field, under a dialog, or meant for what has the focus are left to it. */
export function useShortcuts(showKeys: () => void) {
  const position = useDraft()
  const commands = useCommands(showKeys)
  const keys = useKeys(commands)

  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    if (!position.reference || e.altKey || e.defaultPrevented || isCovered()) return
    const on = e.target instanceof Element ? e.target : document.body
    const key = keyIn(e)
    // Saving is meant in a field too: what is typed there is part of it.
    if (
      key !== 'ctrl+s' &&
      on.closest('input:not([type=range], [type=radio], [type=checkbox]), textarea, select, [contenteditable], .el-popper')
    )
      return
    if (ownKeys.has(key) && on.closest(pressed)) return
    const command = keys.find(key, router.currentRoute.value.name as string | undefined)
    if (!command || (isElsewhere() && !command.isEverywhere && !command.place)) return
    e.preventDefault()
    command.run(command.takesShift && e.shiftKey ? 10 : 1)
    if (!command.endsItself) position.commit()
  })
}
