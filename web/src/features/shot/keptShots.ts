import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, fetchFile, type Schemas } from '../../api/client'
import { useKeeping } from '../../position/keeping'
import { nameOf, pocketName } from '../../domain/balls'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { contentOf, copy } from '../../domain/strokes'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { usePractise } from '../../position/practise'
import { outcomeWords } from '../../position/words'
import { useView } from '../../position/view'
import { useGoal } from '../../position/goal'
import { useGlance } from '../../position/glance'
import { arrivalWords, fullnessWords, kindWords, openingWords, reachWords, strokeWords, warningWords } from '../../domain/words'
import { degreeWords, lengthWords, sentence } from '../../lib/formats'
import { shareWords } from '../../lib/estimates'
import { useJudgements } from './judgements'
import { useTrials } from './trials'
import { allowanceWords, buttWords } from './words'

export type KeptShot = Schemas['SavedShotItem']

/** The shots kept with the position, the line to take down, and the card. */
export const useKeptShots = defineStore('keptShots', () => {
  const answer = useShot()
  const position = useDraft()
  const keeping = useKeeping()
  const notices = useNotices()
  const view = useView()
  const players = usePlayer()
  const practise = usePractise()
  const goal = useGoal()
  const glance = useGlance()
  const judgements = useJudgements()
  const trials = useTrials()
  const shots = shallowRef<KeptShot[]>([])
  const note = ref('')
  const { busy, attempt } = useAttempt((problem) => {
    const current = problem.current as unknown as Schemas['SavedShotResult'] | null
    if (problem.status !== 409 || !current) return false
    // With the newer one's version, what is typed can be kept over it; it stays where it is.
    shots.value = shots.value.map((s) => (s.id === current.id ? { ...s, name: current.name, version: current.version } : s))
    notices.show({
      kind: 'error',
      text: `“${current.name}” was changed elsewhere${current.note ? ` to “${current.note}”` : ''}. Press again to keep yours over it.`,
    })
    return true
  })
  const isOpen = computed(() => view.step === 'shot' && view.shotView === 'kept')
  const path = () => ({ params: { path: { positionId: position.origin!.id } } })

  async function list() {
    shots.value = position.origin ? await ask(client.GET('/api/positions/{positionId}/shots', path())) : []
  }

  watch([() => position.origin?.id, isOpen], () => isOpen.value && void attempt(list, 'Could not load the kept shots'), { immediate: true })

  /** "red 1 in the top green-side pocket: half a tip below, pace 5"; with "missed" where it does not go in as it is set up. */
  const nameOfShot = computed(() => {
    const { pot } = position.stroke
    const end = pot && answer.shot?.simulation.finals.find((f) => f.id === pot.ball)
    const missed = end && end.pocket !== pot.pocket ? ', missed' : ''
    const what = pot ? `${nameOf(pot.ball)} in the ${pocketName(pot.pocket)} pocket${missed}: ` : ''
    return `${what}${strokeWords(position.stroke)}`.slice(0, 120)
  })

  /** Keeps the shot as it is set up, with the line. A position that was never saved is saved first. */
  async function keep() {
    if (!position.origin) await keeping.saveAs()
    if (!position.origin) return
    await attempt(async () => {
      await ask(
        client.POST('/api/positions/{positionId}/shots', {
          ...path(),
          body: { name: nameOfShot.value, note: note.value, content: copy(position.content) },
        }),
      )
      note.value = ''
      await list()
      notices.show({ kind: 'info', text: 'The shot is kept with its position.' })
    }, 'Could not keep the shot')
  }

  /** Puts the balls and the stroke back as they were kept; undo goes back. */
  const open = (shot: KeptShot) =>
    attempt(async () => {
      const about = position.opened
      const whole = await read(shot)
      if (position.opened !== about) return
      position.replace(contentOf(whole.content))
      note.value = whole.note
    }, 'Could not open the shot')

  const pathOf = (shot: KeptShot) => ({ ...path().params.path, id: shot.id })
  const read = (shot: KeptShot) => ask(client.GET('/api/positions/{positionId}/shots/{id}', { params: { path: pathOf(shot) } }))

  function rewrite(shot: KeptShot, text: string) {
    return attempt(async () => {
      await ask(
        client.PUT('/api/positions/{positionId}/shots/{id}', {
          params: { path: pathOf(shot) },
          body: { name: shot.name, note: text, version: shot.version },
        }),
      )
      await list()
    }, 'Could not change the line')
  }

  const practiseShot = (shot: KeptShot) =>
    attempt(async () => {
      const { name, content } = await read(shot)
      await practise.askFor(name, contentOf(content))
    }, 'Could not make it a routine')

  /**
   * All of them as glances, beginning with this one. Their balls are read only now.
   * @param where What one goes back to.
   */
  const glances = (shot: KeptShot, where: string, show: () => void) =>
    attempt(async () => {
      const whole = await Promise.all(shots.value.map(read))
      const items = whole.map((s) => ({ title: sentence(s.name), content: contentOf(s.content), note: s.note }))
      glance.open(
        items,
        where,
        Math.max(
          0,
          shots.value.findIndex((s) => s.id === shot.id),
        ),
      )
      show()
    }, 'Could not open it at a glance')

  function remove(shot: KeptShot) {
    return attempt(async () => {
      const { name, note: text, content } = await read(shot)
      const where = { path: pathOf(shot), query: { version: shot.version } }
      await ask(client.DELETE('/api/positions/{positionId}/shots/{id}', { params: where }))
      await list()
      const back = async () => {
        await ask(client.POST('/api/positions/{positionId}/shots', { ...path(), body: { name, note: text, content } }))
        await list()
      }
      notices.show({
        kind: 'info',
        text: 'The shot is deleted.',
        action: { label: 'Undo', run: () => void attempt(back, 'Could not restore the shot') },
      })
    }, 'Could not delete the shot')
  }

  // ---- The card ------------------------------------------------------------------------------------------------

  /** @param options What is on, for the chance and the tolerance of the pot. */
  function card(options: readonly Schemas['PotOptionResult'][] = []) {
    const { shot } = answer
    const { stroke } = position
    const cut = shot?.cut
    const rows: { label: string; value: string }[] = []
    if (cut) {
      const option = options.find((o) => o.cut.ball === cut.ball && o.cut.pocket === cut.pocket && o.cut.kind === cut.kind)
      rows.push({ label: 'Pot', value: `${nameOf(cut.ball)}, ${pocketName(cut.pocket)}` })
      if (kindWords(cut)) rows.push({ label: 'How', value: kindWords(cut) })
      rows.push(
        { label: 'Cut', value: degreeWords(Math.abs(cut.cutDegrees), 1) },
        { label: 'Fullness', value: fullnessWords[cut.fullnessWord] },
      )
      rows.push({ label: 'Allowance', value: allowanceWords(cut, shot.allowance).replace('aim ', '') })
      if (option && option.chance.value > 0) {
        rows.push({ label: 'Tolerance', value: `±${lengthWords(option.toleranceMillimetres / 2000, 1)}` })
        rows.push({ label: 'Chance', value: shareWords(option.chance) })
      }
    }
    if (shot?.arrival) rows.push({ label: 'Arrives', value: arrivalWords(shot.arrival) })
    const lines = [`${sentence(strokeWords(stroke))}: ${shot ? outcomeWords(shot) : ''}`]
    if (shot) lines.push(`Reach: ${reachWords(shot.reach)}. ${sentence(buttWords(shot))}.`)
    if (judgements.spread?.opens) lines.push(`${sentence(`opens ${openingWords(judgements.spread.opens)}`)}.`)
    if (goal.warnings.length) lines.push(`Watch for: ${goal.warnings.map(warningWords).join('; ')}.`)
    return {
      name: position.draft.name,
      content: copy(position.content),
      rows,
      lines,
      note: note.value,
      traces: trials.shown.map((t) => ({ name: t.name, line: t.line })),
      goal: goal.goal.kind === 'stop' && goal.goal.place ? { ...goal.goal.place, radius: goal.goal.radius } : null,
    }
  }

  const cardAs = (kind: 'pdf' | 'svg') =>
    attempt(async () => {
      const options = position.stroke.pot
        ? await ask(client.POST('/api/read', { body: { content: copy(position.content), player: copy(players.player) } }))
        : []
      keeping.download(await fetchFile(kind === 'pdf' ? '/api/card/pdf' : '/api/card/svg', card(options)), `card.${kind}`)
    }, 'Could not make the card')

  return { shots, note, busy, keep, open, rewrite, remove, practiseShot, glances, cardAs, card }
})
