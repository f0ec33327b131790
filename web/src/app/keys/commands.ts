import { useRecords } from '../../features/frames/records'
import type { Command } from '../../position/commands'
import { useDraft } from '../../position/draft'
import { useKeeping } from '../../position/keeping'
import { useLaying } from '../../position/laying'
import { usePlayback } from '../../position/playback'
import { useView } from '../../position/view'
import { useFeatures } from '../features'
import { planControl } from '../../table/camera'
import { router } from '../router'

const pockets = ['yellow', 'yellow-middle', 'yellow-top', 'green', 'green-middle', 'green-top']
const pocketNames = [
  'the yellow’s',
  'the middle on the yellow’s side',
  'the top on the yellow’s side',
  'the green’s',
  'the middle on the green’s side',
  'the top on the green’s side',
]

/** Every command in the order of the list of keys. */
export function useCommands(showKeys: () => void): Command[] {
  const position = useDraft()
  const playback = usePlayback()
  const keeping = useKeeping()
  const view = useView()
  const records = useRecords()
  const features = useFeatures()
  const laying = useLaying()

  function move(dx: number, dy: number) {
    playback.rewind()
    // Balls that were taken together move together.
    void (laying.group.length > 1 ? laying.moveGroup(dx, dy) : position.nudge(dx, dy))
  }
  function take(step: number) {
    const ids = position.content.balls.map((b) => b.id)
    position.selected = ids[(ids.indexOf(position.selected) + step + ids.length) % ids.length]
  }

  /** About the ball in hand, so that it stays in sight. */
  function look(factor: number) {
    const ball = position.ball(position.selected)
    planControl.value?.lookAt(factor, ball ?? null)
  }

  const moved = { takesShift: true, endsItself: true }
  const everywhere = { isEverywhere: true, endsItself: true }
  return [
    {
      id: 'up',
      name: 'move the selected ball across, to the green’s side, 1 mm',
      key: 'arrowup',
      ...moved,
      run: (by) => move(0, 0.001 * by),
    },
    { id: 'down', name: 'move it across, to the yellow’s side, 1 mm', key: 'arrowdown', ...moved, run: (by) => move(0, -0.001 * by) },
    { id: 'left', name: 'move it towards baulk, 1 mm', key: 'arrowleft', ...moved, run: (by) => move(-0.001 * by, 0) },
    { id: 'right', name: 'move it up the table, 1 mm', key: 'arrowright', ...moved, run: (by) => move(0.001 * by, 0) },
    { id: 'previous', name: 'select the previous ball', key: ',', run: () => take(-1) },
    { id: 'next', name: 'select the next ball', key: '.', run: () => take(1) },
    ...pockets.map((pocket, i) => ({
      id: `pot-${pocket}`,
      name: `pot the selected ball into ${pocketNames[i]} pocket`,
      key: String(i + 1),
      run: () => position.potInto(pocket),
    })),
    { id: 'red', name: 'add a red', key: 'r', run: () => position.addRed() },
    { id: 'remove', name: 'remove the selected ball', key: 'delete', run: () => position.remove(position.selected) },
    { id: 'read', name: 'list what is on', key: 'l', run: () => view.go('read') },
    { id: 'shot', name: 'set the shot up', key: 'i', run: () => view.go('shot', 'set-up') },
    ...features.commands,
    {
      id: 'play',
      name: 'play or stop the shot',
      key: ' ',
      run: () => (playback.isPlaying ? playback.pause() : playback.play(playback.speed)),
    },
    { id: 'closer', name: 'zoom in on the plan', key: 'z', endsItself: true, run: () => look(1.6) },
    { id: 'farther', name: 'zoom out of the plan', key: 'u', endsItself: true, run: () => look(1 / 1.6) },
    { id: 'whole', name: 'show the whole table', key: '0', endsItself: true, run: () => planControl.value?.camera.showWhole() },
    { id: 'matters', name: 'show what matters in this step', key: '9', endsItself: true, run: () => planControl.value?.showWhatMatters() },
    { id: 'undo', name: 'undo', key: 'ctrl+z', endsItself: true, run: () => position.undo() },
    { id: 'redo', name: 'redo', key: 'ctrl+y', endsItself: true, run: () => position.redo() },
    { id: 'save', name: 'save', key: 'ctrl+s', run: () => keeping.save() },
    { id: 'table', name: 'go to the table', key: 'b', ...everywhere, run: () => router.push('/table') },
    {
      id: 'frames',
      name: 'open the frames',
      key: 'f',
      ...everywhere,
      run: () => router.push(records.last ? `/frames/${records.last}` : '/frames'),
    },
    { id: 'positions', name: 'open the library', key: 'o', ...everywhere, run: () => router.push('/library') },
    { id: 'keys', name: 'the list of keys', key: '?', ...everywhere, run: showKeys },
  ]
}
