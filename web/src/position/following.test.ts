import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { useClub, type ClubTable } from './club'
import { useDraft } from './draft'
import { followingTable } from './following'

describe('the table that is laid out', () => {
  beforeEach(() => setActivePinia(createPinia()))
  const slow = { rollingFriction: 0.014 }

  /** The table in hand, which becomes slower. */
  function tableBecomesSlower() {
    const club = useClub()
    const table = { id: 't', name: 'Two', conditions: { rollingFriction: 0.01 } } as unknown as ClubTable
    club.known.tables = [table]
    club.ids.tables = 't'
    return () => {
      club.known.tables = [{ ...table, conditions: slow }]
      return Promise.resolve()
    }
  }

  it('follows the figures of the table in hand', async () => {
    const [change, position] = [tableBecomesSlower(), useDraft()]
    position.content.conditions = { rollingFriction: 0.01 }
    expect(await followingTable(change)).toBe(true)
    expect(position.content.conditions).toEqual(slow)
  })

  it('keeps figures of its own', async () => {
    const [change, position] = [tableBecomesSlower(), useDraft()]
    position.content.conditions = { rollingFriction: 0.02 }
    expect(await followingTable(change)).toBe(false)
    expect(position.content.conditions).toEqual({ rollingFriction: 0.02 })
  })
})
