import { ask, client, Problem, type Schemas } from '../../api/client'
import { sendBy } from '../../lib/outbox'

export type Record_ = Schemas['FrameRecordResult']
export type RecordedShot = Schemas['RecordedShot']
export type NewShot = Partial<RecordedShot> & Pick<RecordedShot, 'kind'>

/** What is done to a frame that is written down: a shot more, the last one taken back, or a word to the last one. */
export type FrameStep =
  | { add: NewShot; undo?: undefined; amend?: undefined }
  | { undo: true; add?: undefined; amend?: undefined }
  | { amend: Partial<NewShot>; add?: undefined; undo?: undefined }

/** Number of steps that go at once. */
const mostAtOnce = 50
const mostTries = 5

/** The shots of a frame as it is told: of a story that cannot be told to its end, those that are told. */
const told = (record: Record_) => record.story.shots.map((s) => s.shot)

/** The shots after some steps. A story with a fault is cut to what is told by the first undo. */
export function after(record: Record_, steps: readonly FrameStep[]): NewShot[] {
  let shots: NewShot[] = told(record)
  let hasFault = !!record.story.fault
  for (const step of steps) {
    if (step.add) shots = [...shots, step.add]
    else if (step.undo) shots = hasFault ? shots : shots.slice(0, -1)
    else if (shots.length) shots = [...shots.slice(0, -1), { ...shots[shots.length - 1], ...step.amend }]
    hasFault = false
  }
  return shots
}

sendBy('frame begun', {
  send: async ([item], signal) => ask(client.POST('/api/frames', { body: item.body as Schemas['NewFrame'], signal })),
})

// What is done here is laid over whatever the frame is by now.
sendBy('frame', {
  atOnce: mostAtOnce,
  send: async (items, signal) => {
    const params = { path: { id: items[0].session } }
    for (let tries = 1; ; tries++) {
      const record = await ask(client.GET('/api/frames/{id}', { params, signal }))
      const shots = after(
        record,
        items.map((w) => w.body as FrameStep),
      )
      const { title, first, second, version } = record
      try {
        return await ask(client.PUT('/api/frames/{id}', { params, body: { title, first, second, version, shots: shots }, signal }))
      } catch (e) {
        if (!(e instanceof Problem) || e.code !== 'conflict' || tries === mostTries) throw e
      }
    }
  },
})
