import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { kept } from '../../lib/device'

export type RoutineItem = Schemas['RoutineItem']
export type RoutineResult = Schemas['RoutineResult']
export type Routine = Schemas['Routine']
export type Step = Schemas['Step']

/** What can be practised; kept on the device, so that it is there without a network. */
export const useRoutines = defineStore('routines', () => {
  const list = shallowRef<RoutineItem[] | null>(null)
  const whole = ref(new Map<string, RoutineResult>())

  async function load() {
    list.value = await kept('routines', () => ask(client.GET('/api/routines')))
  }

  async function read(id: string): Promise<RoutineResult> {
    const routine = await kept(`routine ${id}`, () => ask(client.GET('/api/routines/{id}', { params: { path: { id } } })))
    whole.value.set(id, routine)
    return routine
  }

  /** From what is at hand, or read. */
  const get = async (id: string) => whole.value.get(id) ?? (await read(id))

  const nameOf = (id: string) => whole.value.get(id)?.routine.name ?? list.value?.find((r) => r.id === id)?.name ?? 'A routine'

  async function create(routine: Routine): Promise<RoutineResult> {
    const made = await ask(client.POST('/api/routines', { body: { routine } }))
    whole.value.set(made.id, made)
    void load()
    return made
  }

  async function save(of: RoutineResult, routine: Routine) {
    const saved = await ask(client.PUT('/api/routines/{id}', { params: { path: { id: of.id } }, body: { routine, version: of.version } }))
    whole.value.set(saved.id, saved)
    void load()
    return saved
  }

  async function putAway(of: RoutineResult) {
    await ask(client.DELETE('/api/routines/{id}', { params: { path: { id: of.id }, query: { version: of.version } } }))
    whole.value.delete(of.id)
    await load()
  }

  async function restore(id: string) {
    await ask(client.POST('/api/routines/{id}/restore', { params: { path: { id } } }))
    await load()
  }

  return { list, whole, load, read, get, nameOf, create, save, putAway, restore }
})
