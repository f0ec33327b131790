import { ask, client } from '../../api/client'
import { nameOf } from '../../domain/balls'
import { copy } from '../../domain/strokes'
import { listWords, sentence } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { useNotices } from '../../lib/notices'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { usePlayback } from '../../position/playback'
import { usePlayOn } from '../../position/playOn'
import { useShot } from '../../position/shot'

/** Less likely than this, a pot is not called on. */
const worthIt = 0.25
const mostNamed = 4

/** "Now on: the blue, red 3. No longer: red 5." Empty if nothing has changed. */
export function openedWords(before: ReadonlySet<string>, after: ReadonlySet<string>, gone: ReadonlySet<string>): string {
  const named = (ids: string[]) =>
    ids.length > mostNamed
      ? `${listWords(ids.slice(0, mostNamed).map(nameOf))} and ${ids.length - mostNamed} more`
      : listWords(ids.map(nameOf))
  const opened = [...after].filter((id) => !before.has(id))
  const closed = [...before].filter((id) => !after.has(id) && !gone.has(id))
  return [opened.length ? `Now on: ${named(opened)}.` : '', closed.length ? `No longer: ${named(closed)}.` : ''].filter(Boolean).join(' ')
}

/** One's own stroke, played on by the rules: the table after it, with what has opened and what has closed against before. */
export function useGoOn() {
  const position = useDraft()
  const shot = useShot()
  const players = usePlayer()
  const playback = usePlayback()
  const notices = useNotices()
  const playOn = usePlayOn()
  const { attempt, busy } = useAttempt()

  /** Balls that are on with a pot worth it, whatever the rules allow next. */
  async function open() {
    const content = copy(position.content)
    content.stroke = { ...content.stroke, pot: null, aim: 0, free: true }
    delete content.frame
    const pots = await ask(client.POST('/api/read', { body: { content, player: players.player } }))
    return new Set(pots.filter((p) => p.chance.value >= worthIt).map((p) => p.cut.ball))
  }

  const goOn = () =>
    attempt(async () => {
      playback.rewind()
      const before = await open()
      const had = position.content.balls.map((b) => b.id)
      const content = { ...copy(position.content), stroke: { ...copy(position.stroke), aim: shot.aim } }
      await playOn(content, null, [], { pot: null, free: true })
      const after = await open()
      const gone = new Set(had.filter((id) => !position.ball(id)))
      const words = openedWords(before, after, gone)
      if (words) notices.show({ kind: 'info', text: sentence(words) }, 10)
    }, 'Could not go on from here')

  return { goOn, busy }
}
