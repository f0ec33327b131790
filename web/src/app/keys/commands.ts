import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { router } from '../router'
import { useRecords } from '../../features/frames/records'
import { usePlayback } from '../../position/playback'
import { useMap } from '../../features/read/map'
import { useKeeping } from '../../position/keeping'
import { useJudgements, type Below } from '../../features/shot/judgements'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'

/** What the keyboard can do: each with a name, the key it starts with, and what it does. */
export type Command = {
  id: string
  name: string
  /** As KeyboardEvent.key, in small letters; "ctrl+" before it where the control key is held. */
  key: string
  /** Shift makes the step ten times as large, instead of another key. */
  takesShift?: boolean
  /** Several steps make one gesture that ends by itself. */
  endsItself?: boolean
  run: (step: number) => unknown
}

const pockets = ['yellow', 'yellow-middle', 'yellow-top', 'green', 'green-middle', 'green-top']
const pocketNames = ['the yellow’s', 'the middle on the yellow’s side', 'the top on the yellow’s side', 'the green’s', 'the middle on the green’s side', 'the top on the green’s side']

/** Every command in the order of the list of keys. */
export function useCommands(showKeys: () => void): Command[] {
  const answer = useAnswer()
  const position = useDraft()
  const playback = usePlayback()
  const keeping = useKeeping()
  const judgements = useJudgements()
  const map = useMap()
  const records = useRecords()

  function move(dx: number, dy: number) {
    playback.rewind()
    void position.nudge(dx, dy)
  }
  function tip(side: number, height: number) {
    const next = { side: position.stroke.side + side, height: position.stroke.height + height }
    if (Math.hypot(next.side, next.height) > position.reference!.tipLimit) return
    position.setStroke({ side: Math.round(next.side * 100) / 100, height: Math.round(next.height * 100) / 100 })
  }
  function pace(by: number) {
    const { paceMin, paceMax } = position.reference!
    position.setStroke({ pace: Math.min(paceMax, Math.max(paceMin, Math.round((position.stroke.pace + by) * 10) / 10)) })
  }
  function take(step: number) {
    const ids = position.content.balls.map((b) => b.id)
    position.selected = ids[(ids.indexOf(position.selected) + step + ids.length) % ids.length]
  }
  const turn = (by: number) => position.aimFreely(answer.aim + by)
  const show = (below: Below) => () => (judgements.below = judgements.below === below ? 'happens' : below)

  const stepped = { takesShift: true }
  const moved = { takesShift: true, endsItself: true }
  return [
    { id: 'up', name: 'move the ball in hand across, to the green’s side, 1 mm', key: 'arrowup', ...moved, run: (by) => move(0, 0.001 * by) },
    { id: 'down', name: 'move it across, to the yellow’s side, 1 mm', key: 'arrowdown', ...moved, run: (by) => move(0, -0.001 * by) },
    { id: 'left', name: 'move it towards baulk, 1 mm', key: 'arrowleft', ...moved, run: (by) => move(-0.001 * by, 0) },
    { id: 'right', name: 'move it up the table, 1 mm', key: 'arrowright', ...moved, run: (by) => move(0.001 * by, 0) },
    { id: 'previous', name: 'take the previous ball in hand', key: ',', run: () => take(-1) },
    { id: 'next', name: 'take the next ball in hand', key: '.', run: () => take(1) },
    ...pockets.map((pocket, i) => ({ id: `pot-${pocket}`, name: `pot the ball in hand into ${pocketNames[i]} pocket`, key: String(i + 1), run: () => position.potInto(pocket) })),
    { id: 'aim-left', name: 'turn the aim left, 0.1°', key: 'a', ...stepped, run: (by) => turn(0.1 * by) },
    { id: 'aim-right', name: 'turn the aim right, 0.1°', key: 'd', ...stepped, run: (by) => turn(-0.1 * by) },
    { id: 'tip-up', name: 'tip up, a twentieth of a tip', key: 'w', run: () => tip(0, 0.05) },
    { id: 'tip-down', name: 'tip down', key: 's', run: () => tip(0, -0.05) },
    { id: 'tip-left', name: 'tip left', key: 'q', run: () => tip(-0.05, 0) },
    { id: 'tip-right', name: 'tip right', key: 'e', run: () => tip(0.05, 0) },
    { id: 'softer', name: 'pace down, a tenth', key: '-', run: () => pace(-0.1) },
    { id: 'harder', name: 'pace up, a tenth', key: '+', run: () => pace(0.1) },
    { id: 'red', name: 'add a red', key: 'r', run: () => position.addRed() },
    { id: 'remove', name: 'remove the ball in hand', key: 'delete', run: () => position.remove(position.selected) },
    { id: 'read', name: 'list what is on', key: 'l', run: show('on') },
    { id: 'ways', name: 'put it there: where the white should stop', key: 't', run: show('ways') },
    { id: 'plan', name: 'plan a break', key: 'p', run: show('plan') },
    { id: 'decide', name: 'decide: attack or defend, and how to get out of a snooker', key: 'v', run: show('decide') },
    { id: 'map', name: 'show where to be for the next ball', key: 'm', run: () => (map.isOpen = !map.isOpen) },
    { id: 'frames', name: 'frames written down shot by shot', key: 'f', run: () => router.push(records.last ? `/frames/${records.last}` : '/frames') },
    { id: 'keep', name: 'keep the shot, with a line on it', key: 'k', run: show('shots') },
    { id: 'play', name: 'play or stop the shot', key: ' ', run: () => (playback.isPlaying ? playback.pause() : playback.play(playback.speed)) },
    { id: 'undo', name: 'undo', key: 'ctrl+z', endsItself: true, run: () => position.undo() },
    { id: 'redo', name: 'redo', key: 'ctrl+y', endsItself: true, run: () => position.redo() },
    { id: 'save', name: 'save', key: 'ctrl+s', run: () => keeping.save() },
    { id: 'positions', name: 'open the library', key: 'o', run: () => router.push('/library') },
    { id: 'keys', name: 'this page', key: '?', run: showKeys },
  ]
}

/** The user's own keys: another for a command, or none. */
export function useKeys(commands: Command[]) {
  const changed = useLocalStorage<Record<string, string | null>>('deep-baize-keys', {})
  /** Keys of one sign act at all (WCAG 2.1.4): whoever speaks to the computer switches them off. */
  const single = useLocalStorage('deep-baize-single-keys', true)

  const keyOf = (c: Command) => (changed.value[c.id] === undefined ? c.key : changed.value[c.id])
  const byKey = computed(() => new Map(commands.flatMap((c) => (keyOf(c) ? [[keyOf(c)!, c] as const] : []))))
  const isSingle = (key: string) => [...key].length === 1

  /** Sets another key, or none; what had it before loses it. */
  function change(command: Command, key: string | null) {
    const taken = key && commands.find((c) => c !== command && keyOf(c) === key)
    const now = { ...changed.value, ...(taken ? { [taken.id]: null } : {}), [command.id]: key }
    if (key === command.key) delete now[command.id]
    changed.value = now
    return taken || null
  }

  function reset() {
    changed.value = {}
  }

  const find = (key: string) => (isSingle(key) && !single.value ? undefined : byKey.value.get(key))
  return { single, changed, keyOf, change, reset, find }
}

/** As a command's key is written: "ctrl+z", "arrowup", "a". */
export function keyIn(e: KeyboardEvent): string {
  const key = e.key.toLowerCase()
  if (e.ctrlKey || e.metaKey) return `ctrl+${e.shiftKey && key === 'z' ? 'y' : key}`
  return key === '=' ? '+' : key
}

/** How a key is written on the screen. */
export function keyWords(key: string): string {
  const names: Record<string, string> = { arrowup: '↑', arrowdown: '↓', arrowleft: '←', arrowright: '→', ' ': 'Space', delete: 'Delete' }
  return key.startsWith('ctrl+') ? `Ctrl ${key.slice(5).toUpperCase()}` : (names[key] ?? key)
}
