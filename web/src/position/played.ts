import { createEventHook } from '@vueuse/core'
import type { Schemas } from '../api/client'

export type PlayedShot = Partial<Schemas['RecordedShot']> & Pick<Schemas['RecordedShot'], 'kind'>

/** A planned stroke has been played in earnest: told to whoever writes down what happens at the table. */
export const played = createEventHook<PlayedShot>()
