import { useEventListener } from '@vueuse/core'
import { useRecords } from '../frames/records'
import { usePlayback } from '../picture/playback'
import { useMap } from '../planning/map'
import { useKeeping } from '../positions/keeping'
import { useJudgements } from '../shots/judgements'
import { useWorkspace } from '../workspace/workspace'

export const shortcuts = [
  { keys: 'Arrow keys', does: 'move the ball in hand by 1 mm, with Shift by 10 mm' },
  { keys: ', or .', does: 'take the previous or the next ball in hand' },
  { keys: '1 to 6', does: 'pot the ball in hand: 1 to 3 the baulk, middle and top pocket on the yellow’s side, 4 to 6 on the green’s' },
  { keys: 'a or d', does: 'turn the aim left or right by 0.1°, with Shift by 1°' },
  { keys: 'w or s', does: 'tip up or down by a twentieth of a tip' },
  { keys: 'q or e', does: 'tip left or right by a twentieth of a tip' },
  { keys: '- or +', does: 'pace down or up by a tenth' },
  { keys: 'r', does: 'add a red' },
  { keys: 'Delete', does: 'remove the ball in hand' },
  { keys: 'l', does: 'list what is on' },
  { keys: 't', does: 'put it there: where the white should stop' },
  { keys: 'p', does: 'plan a break' },
  { keys: 'v', does: 'decide: attack or defend, and how to get out of a snooker' },
  { keys: 'm', does: 'show where to be for the next ball' },
  { keys: 'f', does: 'frames written down shot by shot' },
  { keys: 'k', does: 'keep the shot, with a line on it' },
  { keys: 'Space', does: 'play or stop the shot' },
  { keys: 'Ctrl Z or Ctrl Y', does: 'undo, redo' },
  { keys: 'Ctrl S', does: 'save' },
  { keys: 'o', does: 'open the positions' },
  { keys: '?', does: 'this page' },
]

const pocketKeys = ['yellow', 'yellow-middle', 'yellow-top', 'green', 'green-middle', 'green-top']

/** The keyboard does what the mouse does. Keys typed into a field, or on a dialog, are left to it. */
export function useShortcuts(show: () => void) {
  const workspace = useWorkspace()
  const playback = usePlayback()
  const keeping = useKeeping()
  const judgements = useJudgements()
  const map = useMap()
  const records = useRecords()

  function tip(side: number, height: number) {
    const next = { side: workspace.stroke.side + side, height: workspace.stroke.height + height }
    if (Math.hypot(next.side, next.height) > workspace.reference!.tipLimit) return
    workspace.setStroke({ side: Math.round(next.side * 100) / 100, height: Math.round(next.height * 100) / 100 })
  }

  async function nudge(dx: number, dy: number) {
    const ball = workspace.ball(workspace.selected)
    if (!ball) return
    playback.rewind()
    await workspace.drag(ball.id, ball.x + dx, ball.y + dy)
    workspace.commit()
  }

  function turn(by: number) {
    workspace.aimFreely(workspace.aim + by)
  }

  function take(step: number) {
    const ids = workspace.content.balls.map((b) => b.id)
    workspace.selected = ids[(ids.indexOf(workspace.selected) + step + ids.length) % ids.length]
  }

  function pace(by: number) {
    const { paceMin, paceMax } = workspace.reference!
    workspace.setStroke({ pace: Math.min(paceMax, Math.max(paceMin, Math.round((workspace.stroke.pace + by) * 10) / 10)) })
  }

  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    if (!workspace.reference) return
    const on = e.target as HTMLElement
    const key = e.key
    const control = e.ctrlKey || e.metaKey
    if (control && key.toLowerCase() === 's') {
      e.preventDefault()
      void keeping.save()
      return
    }
    if (on.closest('input:not([type=range]), textarea, select, .el-overlay, [contenteditable]')) return
    if (control) {
      if (key.toLowerCase() === 'z') (e.shiftKey ? workspace.redo : workspace.undo)()
      else if (key.toLowerCase() === 'y') workspace.redo()
      else return
      e.preventDefault()
      return
    }
    if (e.altKey) return
    const mm = e.shiftKey ? 0.01 : 0.001
    const degrees = e.shiftKey ? 1 : 0.1
    const isRange = on instanceof HTMLInputElement
    const deeds: Record<string, () => unknown> = {
      a: () => turn(degrees),
      d: () => turn(-degrees),
      w: () => tip(0, 0.05),
      s: () => tip(0, -0.05),
      q: () => tip(-0.05, 0),
      e: () => tip(0.05, 0),
      '+': () => pace(0.1),
      '=': () => pace(0.1),
      '-': () => pace(-0.1),
      ',': () => take(-1),
      '.': () => take(1),
      r: () => workspace.addRed(),
      o: () => (keeping.libraryOpen = true),
      l: () => (judgements.below = judgements.below === 'on' ? 'happens' : 'on'),
      t: () => (judgements.below = judgements.below === 'ways' ? 'happens' : 'ways'),
      p: () => (judgements.below = judgements.below === 'plan' ? 'happens' : 'plan'),
      v: () => (judgements.below = judgements.below === 'decide' ? 'happens' : 'decide'),
      m: () => (map.isOpen = !map.isOpen),
      f: () => records.show(),
      k: () => (judgements.below = judgements.below === 'shots' ? 'happens' : 'shots'),
      '?': show,
      delete: () => workspace.remove(workspace.selected),
    }
    if (!isRange)
      Object.assign(deeds, {
        arrowup: () => nudge(0, mm),
        arrowdown: () => nudge(0, -mm),
        arrowleft: () => nudge(-mm, 0),
        arrowright: () => nudge(mm, 0),
      })
    if (on.tagName !== 'BUTTON') deeds[' '] = () => (playback.isPlaying ? playback.pause() : playback.play(playback.speed))
    pocketKeys.forEach((pocket, i) => {
      deeds[String(i + 1)] = () => workspace.potInto(pocket)
    })
    const deed = deeds[key.toLowerCase()]
    if (!deed) return
    e.preventDefault()
    deed()
    if (!key.startsWith('Arrow')) workspace.commit()
  })
}
