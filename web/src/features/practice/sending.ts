import { ask, client, Problem, type Schemas } from '../../api/client'
import { sendBy, type Waiting } from '../../lib/outbox'

type Attempt = Schemas['AttemptEntry']
export type State = Schemas['SessionState']

/** Number of attempts that go at once. */
const mostAtOnce = 200

const moved = (time: string, by: number) => new Date(Date.parse(time) + by).toISOString()
const pathOf = (item: Waiting) => ({ path: { id: item.session } })
const stateOf = (session: State['session']): State => ({ session, attempts: [], conflicts: [] })

// How what is done at a session is sent.
sendBy('begin', {
  send: async ([item], signal) =>
    stateOf(await ask(client.POST('/api/practice/sessions', { body: item.body as Schemas['SessionEntry'], signal }))),
  moved: (body, by) => {
    const entry = body as Schemas['SessionEntry']
    return { ...entry, startedAt: entry.startedAt && moved(entry.startedAt, by) }
  },
})
sendBy('attempt', {
  atOnce: mostAtOnce,
  send: (items, signal) => {
    const attempts = items.map((w) => w.body as Attempt)
    return ask(client.POST('/api/practice/sessions/{id}/attempts', { params: pathOf(items[0]), body: { attempts }, signal }))
  },
  moved: (body, by) => ({ ...(body as Attempt), at: moved((body as Attempt).at, by) }),
})
sendBy('task', {
  send: async ([item], signal) => {
    const body = { now: item.body as Schemas['TaskNow'] }
    return stateOf(await ask(client.PUT('/api/practice/sessions/{id}/now', { params: pathOf(item), body, signal })))
  },
})
sendBy('note', {
  send: async ([item], signal) => {
    const { attempt, note } = item.body as { attempt: string; note: string }
    const path = { id: item.session, attempt }
    await ask(client.PUT('/api/practice/sessions/{id}/attempts/{attempt}/note', { params: { path }, body: { note }, signal }))
    return null
  },
})
sendBy('save', {
  send: async ([item], signal) => {
    // What is written here is laid over whatever the session is by now.
    const change = item.body as Partial<Schemas['SessionSave']>
    const params = pathOf(item)
    for (let tries = 0; ; tries++) {
      const { session } = await ask(client.GET('/api/practice/sessions/{id}', { params, signal }))
      const { note, endedAt, plan, version } = session
      try {
        const body = { note, endedAt, plan, ...change, version }
        return stateOf(await ask(client.PUT('/api/practice/sessions/{id}', { params, body, signal })))
      } catch (e) {
        if (!(e instanceof Problem) || e.code !== 'conflict' || tries > 4) throw e
      }
    }
  },
  moved: (body, by) => {
    const change = body as Partial<Schemas['SessionSave']>
    return change.endedAt ? { ...change, endedAt: moved(change.endedAt, by) } : change
  },
})
