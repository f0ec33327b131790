// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { plainPot, plainStroke } from '../domain/strokes'
import { fileIn, linkOf } from './links'

const draft = {
  name: 'Stun – “½ tip” & more',
  about: '',
  content: {
    balls: [
      { id: 'white', x: 1.2345678912, y: 0.5 },
      { id: 'red-1', x: 2.5, y: 1 },
    ],
    stroke: { ...plainStroke, height: -0.5, pot: plainPot('red-1', 'green-top') },
    conditions: { slidingFriction: 0.2 },
  },
}

describe('a position in an address', () => {
  it('comes back whole, in few letters that need no escaping', async () => {
    const link = await linkOf(draft)
    expect(link).toMatch(/^p1\.[A-Za-z0-9_-]+$/)
    expect(link.length).toBeLessThan(420)
    const file = JSON.parse(await fileIn(`#${link}`)) as Record<string, unknown>
    expect(file).toEqual({
      format: 'deep-baize-position',
      version: 2,
      name: draft.name,
      balls: [
        { id: 'white', x: 1.2345679, y: 0.5 },
        { id: 'red-1', x: 2.5, y: 1 },
      ],
      stroke: { height: -0.5, pot: draft.content.stroke.pot },
      conditions: { slidingFriction: 0.2 },
    })
  })

  it('of a full table is still short', async () => {
    const balls = Array.from({ length: 22 }, (_, i) => ({
      id: i < 7 ? `ball-${i}` : `red-${i - 6}`,
      x: 1 + Math.sqrt(i) / 7,
      y: 0.3 + Math.cbrt(i) / 9,
    }))
    expect((await linkOf({ ...draft, content: { ...draft.content, balls } })).length).toBeLessThan(900)
  })

  it('says so when it is cut short, of another kind, or of a later version', async () => {
    const link = await linkOf(draft)
    await expect(fileIn(`#${link.slice(0, -30)}`)).rejects.toThrow('damaged')
    await expect(fileIn('#p1.%%%')).rejects.toThrow('damaged')
    await expect(fileIn(`#p2.${link.slice(3)}`)).rejects.toThrow('newer')
    await expect(fileIn(`#p1.${'A'.repeat(30_000)}`)).rejects.toThrow('too long')
  })
})
