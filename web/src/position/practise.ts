import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { ask as request, client, type BallEntry, type Content, type Schemas, type Stroke } from '../api/client'
import { copy } from '../domain/strokes'
import { usePlayer } from './player'

export type Practised = {
  name: string
  balls: BallEntry[]
  stroke: Stroke
  /** Where the white is to stop, if that is known. */
  stop: { x: number; y: number } | null
  /** Steps that are made already, as of a ladder: then nothing else is asked of an attempt. */
  steps?: Pick<Schemas['Step'], 'label' | 'stroke' | 'demands'>[]
  /** What alone changes from step to step. */
  knob?: 'height' | 'pace' | null
}

/** What is to be made a routine: asked for from a position, a kept shot, a plan or a comparison; words and rule are asked for in a dialog. */
export const usePractise = defineStore('practise', () => {
  const players = usePlayer()
  const asked = shallowRef<Practised | null>(null)
  const ask = (what: Practised) => (asked.value = copy(what))
  const leave = () => (asked.value = null)

  /** A stroke from somewhere else than the desk: where its white stops is asked for. */
  async function askFor(name: string, content: Content) {
    const shot = await request(client.POST('/api/shot', { body: { content: copy(content), player: players.player } }))
    const white = shot.simulation.finals.find((b) => b.id === 'white')
    ask({
      name,
      balls: content.balls,
      stroke: { ...content.stroke, aim: shot.strike.aim },
      stop: white && !white.pocket ? { x: white.x, y: white.y } : null,
    })
  }

  return { asked, ask, askFor, leave }
})
