import { ask, client, type Schemas } from '../../api/client'
import { aBall } from '../../domain/balls'
import { endReasonWords, reasonName } from '../../domain/reasons'
import { countWords, dayWords, percentWords, sentence } from '../../lib/formats'
import { kept } from '../../lib/device'
import { useAnswer } from '../../lib/useAnswer'

export type Page = Schemas['PlayerPageResult']
type Form = Schemas['PageForm']

/** A player at a glance; kept on the device for when there is no network. */
export const usePlayerPage = (id: () => string) =>
  useAnswer<{ id: string }, Page>({
    question: () => ({ id: id() }),
    ask: (asked, signal) =>
      kept(`player page ${asked.id}`, () => ask(client.GET('/api/players/{id}/page', { params: { path: asked }, signal }))),
  })

/** "61 %, up 14 points" and whether that is more than chance. */
export function formWords({ now, change }: Form): string {
  const by = Math.round(Math.abs(change.difference) * 100)
  const share = percentWords(now.of ? now.done / now.of : 0)
  const doubt = change.verdict === 'notYet' ? ', could be chance' : ''
  return `${share}, ${change.difference >= 0 ? 'up' : 'down'} ${countWords(by, 'point')}${doubt}`
}

/** One thing to work on, why, and where to go for it. */
export type Task = { what: string; why: string; routine?: string }
const most = 3

/** What to work on, the surest first: what has clearly slipped, the commonest reason for misses, where turns in frames end. */
export function tasks(page: Page): Task[] {
  const list: Task[] = page.down
    .filter((f) => f.change.verdict === 'worse')
    .map((f) => ({ what: f.name, why: formWords(f), routine: f.routine }))
  const cause = page.causes[0]
  if (cause && cause.times >= 3)
    list.push({
      what: sentence(reasonName(cause.reason)),
      why: `the reason given for ${cause.times} of ${cause.missed} misses in the last four weeks`,
    })
  const end = page.ends.find((e) => e.why)
  if (end && end.count >= 2)
    list.push({
      what: sentence(`${endReasonWords(end.why)} on ${aBall(end.on)}`),
      why: `ended ${end.count} of ${end.of} turns in frames`,
    })
  const slipping = page.down.find((f) => f.change.verdict === 'notYet')
  if (slipping && list.length < most) list.push({ what: slipping.name, why: formWords(slipping), routine: slipping.routine })
  return list.slice(0, most)
}

/** "412 attempts in 9 sessions since 4 Nov, 1 frame". */
export function countedWords(page: Page): string {
  const frames = page.frames ? `, ${countWords(page.frames, 'frame')}` : ''
  const since = page.since ? ` since ${dayWords(page.since.slice(0, 10))}` : ''
  return `${countWords(page.attempts, 'attempt')} in ${countWords(page.sessions, 'session')}${since}${frames}`
}
