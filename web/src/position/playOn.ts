import { ask, client, type Content, type Schemas, type Stroke } from '../api/client'
import { kindOf, nameOf } from '../domain/balls'
import { contentOf } from '../domain/strokes'
import { countWords } from '../lib/formats'
import { useNotices } from '../lib/notices'
import { useDraft } from './draft'
import { played } from './played'

type Result = Schemas['PlayOnResult']
export type Missed = 'thick' | 'thin'

/** What came of a stroke that was played on, in a sentence. */
export function playedWords(result: Result, hasPot: boolean): string {
  if (result.frame.isOver) return result.frame.exercise ? 'That was the last ball of the exercise.' : 'That was the frame.'
  const potted = result.potted.filter((b) => b !== 'white').map(nameOf)
  if (result.points > 0)
    return `${potted.join(' and ')}: ${countWords(result.points, 'point')}, break ${result.frame.break}. Drag the white to where it really stopped.`
  if (result.fouls.length) return `Foul, ${result.penalty} away. Drag the balls to where they really stopped.`
  return `${hasPot ? 'Missed' : 'Played'}: the other player is at the table. Drag the balls to where they really stopped.`
}

/** Plays a stroke on by the rules: the table after it is laid out with what is next of the stroke, and the shot is told to whoever writes it down. */
export function usePlayOn() {
  const position = useDraft()
  const notices = useNotices()

  return async function playOn(
    content: Content,
    missed: Missed | null,
    tags: Schemas['StrokeTag'][] = [],
    next: Partial<Stroke> = {},
  ): Promise<Result> {
    const result = await ask(client.POST('/api/play-on', { body: { content, missed } }))
    const hasPot = !!content.stroke.pot
    const at = result.content.balls.find((b) => b.id === 'white')
    const white = at ? { x: at.x, y: at.y } : null
    void played.trigger(
      result.points > 0
        ? { kind: 'pot', potted: result.potted.map(kindOf), tags, white }
        : result.fouls.length
          ? {
              kind: 'foul',
              penalty: result.penalty,
              inOff: result.potted.includes('white'),
              redsLost: result.potted.filter((b) => kindOf(b) === 'red').length,
              tags,
              white,
            }
          : { kind: hasPot ? 'miss' : 'safety', tags, why: missed, white },
    )
    const after = contentOf(result.content)
    position.replace({ ...position.content, ...after, stroke: { ...after.stroke, ...next } })
    position.selected = 'white'
    notices.show({ kind: 'info', text: playedWords(result, hasPot), action: { label: 'Undo', run: () => position.undo() } }, 8)
    return result
  }
}
