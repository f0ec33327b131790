import type { Layer } from '../table/layer'
import type { Command } from './commands'

/** What a feature gives to the table: what it draws, and what the keyboard does with it. */
export type Feature = { layers?: Layer[]; commands?: Command[] }
