import { defineStore } from 'pinia'
import { computed, reactive, ref, watchEffect } from 'vue'
import { ask, client, Problem, type Schemas } from '../api/client'
import { paceScale } from '../lib/formats'
import { useNotices } from '../lib/notices'
import { detailOf, titleOf } from '../lib/problemWords'

type Figures = Record<string, number>
export type ClubPlayer = Omit<Required<Schemas['StoredPlayer']>, 'paceScale'> & {
  name: string
  paceScale: { own: number; standard: number }[]
}
export type ClubTable = Required<Schemas['StoredTable']> & { name: string; conditions: Figures }
export type ClubCue = Required<Schemas['StoredCue']> & { name: string; conditions: Figures }
type Things = { players: ClubPlayer; tables: ClubTable; cues: ClubCue }
export type Kind = keyof Things
export const kinds = ['players', 'tables', 'cues'] as const
const idNames = { players: 'playerId', tables: 'tableId', cues: 'cueId' } as const
const one = { players: 'player', tables: 'table', cues: 'cue' } as const

/** Who plays, on what and with what: one of each is in hand. Kept in the database. */
export const useClub = defineStore('club', () => {
  const notices = useNotices()
  const known = reactive<{ [K in Kind]: Things[K][] }>({ players: [], tables: [], cues: [] })
  const ids = ref<Record<Kind, string>>({ players: '', tables: '', cues: '' })
  const find = <K extends Kind>(kind: K, id: string) => (known[kind] as Things[K][]).find((t) => t.id === id)
  const player = computed(() => find('players', ids.value.players))
  watchEffect(() => (paceScale.value = player.value?.paceScale ?? []))
  const table = computed(() => find('tables', ids.value.tables))
  const cue = computed(() => find('cues', ids.value.cues))
  /** How this table and this cue behave: what a new position begins with. */
  const conditions = computed<Figures>(() => ({ ...table.value?.conditions, ...cue.value?.conditions }))

  function put<K extends Kind>(kind: K, thing: Things[K]) {
    const list = known[kind] as Things[K][]
    const at = list.findIndex((t) => t.id === thing.id)
    if (at < 0) list.push(thing)
    else list[at] = thing
  }

  function takeAnswer(answer: Schemas['InHandResult']) {
    put('players', answer.player as ClubPlayer)
    put('tables', answer.table as ClubTable)
    put('cues', answer.cue as ClubCue)
    ids.value = { players: answer.player.id, tables: answer.table.id, cues: answer.cue.id }
  }

  /** What is in hand. */
  const load = async () => takeAnswer(await ask(client.GET('/api/in-hand')))

  /** All there are, for whoever chooses. */
  async function loadAll() {
    const [players, tables, cues] = await Promise.all([
      ask(client.GET('/api/players')),
      ask(client.GET('/api/tables')),
      ask(client.GET('/api/cues')),
    ])
    Object.assign(known, { players, tables, cues })
  }

  const take = async (kind: Kind, id: string) => takeAnswer(await ask(client.PUT('/api/in-hand', { body: { [idNames[kind]]: id } })))

  // A save of one thing after the other: each knows the version that the one before has made.
  let saved: Promise<void> = Promise.resolve()

  /** Changes figures at once and keeps them; says so if they could not be kept. */
  function change<K extends Kind>(kind: K, id: string, changes: Partial<Things[K]>) {
    const before = find(kind, id)
    if (!before) return saved
    put(kind, { ...before, ...changes })
    return (saved = saved.then(() => save(kind, before)))
  }

  async function save<K extends Kind>(kind: K, before: Things[K]) {
    const wanted = find(kind, before.id)!
    const params = { path: { id: before.id } }
    try {
      const answer =
        kind === 'players'
          ? await ask(client.PUT('/api/players/{id}', { params, body: wanted as ClubPlayer }))
          : kind === 'tables'
            ? await ask(client.PUT('/api/tables/{id}', { params, body: wanted as ClubTable }))
            : await ask(client.PUT('/api/cues/{id}', { params, body: wanted as ClubCue }))
      // What was changed meanwhile stays: only the version is news.
      put(kind, { ...find(kind, before.id)!, version: answer.version! })
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      if (e.code === 'conflict' && e.current) {
        put(kind, e.current as unknown as Things[K])
        notices.show({
          kind: 'error',
          text: `The ${one[kind]} was changed elsewhere. These are the newer figures; make your change again.`,
        })
        return
      }
      // Away: the page goes on with it. Refused: back to what was there.
      if (!e.isAway) put(kind, { ...before, version: find(kind, before.id)!.version })
      notices.show({ kind: 'error', text: `Could not save the ${one[kind]}: ${titleOf(e)}`, detail: detailOf(e) })
    }
  }

  /** A new one, with the figures of another if there is one to begin with. */
  async function create<K extends Kind>(kind: K, name: string, like?: Things[K]): Promise<Things[K]> {
    const body = { ...like, name }
    const made =
      kind === 'players'
        ? await ask(client.POST('/api/players', { body }))
        : kind === 'tables'
          ? await ask(client.POST('/api/tables', { body }))
          : await ask(client.POST('/api/cues', { body }))
    put(kind, made as unknown as Things[K])
    return made as unknown as Things[K]
  }

  async function putAway(kind: Kind, id: string) {
    const { version, name } = find(kind, id)!
    const params = { path: { id }, query: { version } }
    if (kind === 'players') await ask(client.DELETE('/api/players/{id}', { params }))
    else if (kind === 'tables') await ask(client.DELETE('/api/tables/{id}', { params }))
    else await ask(client.DELETE('/api/cues/{id}', { params }))
    await loadAll()
    notices.show({
      kind: 'info',
      text: `“${name}” is archived. Its past results stay.`,
      action: { label: 'Restore it', run: () => void restore(kind, id) },
    })
  }

  async function restore(kind: Kind, id: string) {
    const params = { path: { id } }
    if (kind === 'players') await ask(client.POST('/api/players/{id}/restore', { params }))
    else if (kind === 'tables') await ask(client.POST('/api/tables/{id}/restore', { params }))
    else await ask(client.POST('/api/cues/{id}/restore', { params }))
    await loadAll()
  }

  return { known, ids, player, table, cue, conditions, find, load, loadAll, take, change, create, putAway }
})
