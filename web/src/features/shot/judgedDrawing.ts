import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { useDraft } from '../../position/draft'
import { firstOfWidest, type Naming } from '../../table/labels'
import { useGoal } from '../../position/goal'
import { useShot } from '../../position/shot'
import { shortFanWords } from './fanWords'
import { useJudgements } from './judgements'
import { useWays } from './ways'

/** A fan of more lines has no room for their names. */
const mostNamed = 9

/** What is drawn around the shot that is set up: the same pot played otherwise, where the white may stop, and the ways to put it there. */
export const useJudgedDrawing = createSharedComposable(() => {
  const judgements = useJudgements()
  const position = useDraft()
  const goals = useGoal()
  const ways = useWays()
  const shot = useShot()

  /** Ways that are pointed at, or laid beside one another. */
  const shownWays = computed(() => {
    if (!ways.isOpen) return []
    const shown = [
      { way: ways.a, label: 'A', key: 'a' },
      { way: ways.b, label: 'B', key: 'b' },
    ]
    const pointed = ways.byKey(ways.pointed)
    if (pointed && pointed !== ways.a && pointed !== ways.b) shown.push({ way: pointed, label: 'this way', key: 'pointed' })
    return shown.flatMap(({ way, label, key }) =>
      way ? [{ key, label, mirror: way.mirror, points: way.points, end: way.points[way.points.length - 1] }] : [],
    )
  })
  /** Where the white should stop, while that is what is asked. */
  const places = computed(() =>
    ways.isOpen ? goals.goals.flatMap((g) => (g.kind === 'stop' && g.place ? [{ ...g.place, radius: g.radius }] : [])) : [],
  )
  /** Gaps between balls and stretches of a cushion that are wanted. */
  const wanted = computed(() => {
    if (!ways.isOpen) return []
    const { length, width } = position.reference!
    return goals.goals.flatMap((g) => {
      if (g.kind === 'gap') {
        const [a, b] = [position.ball(g.ball), position.ball(g.other)]
        return a && b ? [[a, b]] : []
      }
      if (g.kind !== 'cushion' || !g.cushion) return []
      const [from, to] = [g.cushion.at - g.within, g.cushion.at + g.within]
      const x = g.cushion.name === 'top' ? length : 0
      const y = g.cushion.name === 'green-side' ? width : 0
      const isEnd = g.cushion.name === 'top' || g.cushion.name === 'baulk'
      return [[from, to].map((v) => (isEnd ? { x, y: v } : { x: v, y }))]
    })
  })

  /** Lines of the fan as they are drawn: those of a list that is long are named only where they are pointed at. */
  const fan = computed(() =>
    judgements.fan.map((line) => ({
      line,
      name: shortFanWords(judgements.fanKind ?? 'routes', line, position.stroke, isFine.value),
      isPointed: judgements.pointedLine === line.key,
      does: line.doesGoal === true,
      isMissed: line.potted === false || !!line.whitePocket,
    })),
  )
  /** Steps for which there are no words. */
  const isFine = computed(() => !!judgements.fanRange && judgements.fanRange.step < 0.25)
  /** Of a fan with one aim: where the white is aimed, and where it would have to be. */
  const aimLines = computed(() => {
    const cut = shot.shot?.cut
    const white = position.ball('white')
    if (!judgements.sameAim || !cut || !white) return []
    const along = (degrees: number) => {
      const a = (degrees * Math.PI) / 180
      const far = cut.cueBallDistance + 0.15
      return { x: white.x + far * Math.cos(a), y: white.y + far * Math.sin(a) }
    }
    return judgements.fan
      .filter((l) => l.aimThatPots !== null && (judgements.pointedLine ? judgements.pointedLine === l.key : true))
      .map((l) => ({ key: l.key, from: white, kept: along(l.aim), pots: along(l.aimThatPots!) }))
  })

  const namings = computed(() => {
    const list: Naming[] = []
    for (const { line, name, isPointed, does } of fan.value)
      if (isPointed || fan.value.length <= mostNamed)
        list.push({
          key: `fan${line.key}`,
          kind: 'fan',
          text: name + (line.potted === false ? ' (missed)' : does ? ' (does it)' : ''),
          at: line.points[line.points.length - 1],
          size: 50,
        })
    for (const w of shownWays.value) {
      list.push({ key: `way${w.key}`, kind: 'fan', text: w.label, at: w.end, size: 54 })
      if (w.mirror.length)
        list.push({
          key: `mirror${w.key}`,
          kind: 'brass',
          text: shownWays.value.length > 1 ? `${w.label} as in a mirror` : 'as in a mirror',
          at: w.mirror[1],
          size: 46,
        })
    }
    places.value.forEach((p, i) =>
      list.push({ key: `goal${i}`, kind: 'brass', text: 'stop here', at: { x: p.x, y: p.y + p.radius }, size: 50 }),
    )
    for (const [key, words, outlines] of [
      ['thick', 'missed thick', judgements.spread?.thickLeaves],
      ['thin', 'missed thin', judgements.spread?.thinLeaves],
    ] as const) {
      const at = firstOfWidest(outlines ?? [])
      if (at) list.push({ key, kind: 'missed', text: words, at, size: 46 })
    }
    return list
  })

  /** Lines that no label should lie on. */
  const lines = computed(() => [...judgements.fan.map((f) => f.points), ...shownWays.value.flatMap((w) => [w.points, w.mirror])])

  return { shownWays, places, wanted, fan, aimLines, namings, lines }
})
