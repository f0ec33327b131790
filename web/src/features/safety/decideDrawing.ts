import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { nameOf } from '../../domain/balls'
import { highestOfWidest, type Naming } from '../../table/labels'
import { lengthWords, percentWords } from '../../lib/formats'
import { useDecide } from './decide'

/** What is drawn of the safety or the escape that is chosen, and of what the stroke leaves. */
export const useDecideDrawing = createSharedComposable(() => {
  const decide = useDecide()
  const safety = computed(() => (decide.shown?.kind === 'safety' ? decide.shown.safety : null))
  const escape = computed(() => (decide.shown?.kind === 'escape' ? decide.shown.escape : null))
  /** The other player's ways after the stroke that is set up. */
  const rivalLines = computed<Schemas['RivalViewResult']['lines']>(() => (decide.view?.rivalAtTable ? decide.view.lines : []))

  /** Where both balls end with each opening, in the order of the list. */
  const openingEnds = computed(() =>
    decide.isOpen && decide.isBlackBall
      ? (decide.openings?.openings ?? []).map((o, i) => ({
          number: i + 1,
          white: o.whitePath.at(-1)!,
          black: o.blackPath.at(-1)!,
          path: o.whitePath,
        }))
      : [],
  )

  const namings = computed(() => {
    const list: Naming[] = []
    const spreads = safety.value
      ? ([
          ['safe-white', 'white', safety.value.whiteSpread],
          ['safe-ball', nameOf(safety.value.ball), safety.value.ballSpread],
        ] as const)
      : []
    for (const [key, words, outlines] of spreads) {
      const at = highestOfWidest(outlines)
      if (at) list.push({ key, kind: 'fan', text: `${words} mostly stops here`, at, size: 46 })
    }
    if (escape.value?.mirror) {
      list.push({ key: 'mirror', kind: 'brass', text: 'as in a mirror', at: escape.value.mirror.points[1], size: 46 })
      if (escape.value.contact)
        list.push({ key: 'contact', kind: 'fan', text: lengthWords(escape.value.fromPocket!), at: escape.value.contact, size: 46 })
    }
    for (const o of openingEnds.value)
      list.push(
        { key: `opening-white${o.number}`, kind: 'fan', text: `${o.number}: white`, at: o.white, size: 46 },
        { key: `opening-black${o.number}`, kind: 'fan', text: `${o.number}: black`, at: o.black, size: 46 },
      )
    for (const l of rivalLines.value.filter((l) => l.chance > 0).slice(0, 4))
      list.push({
        key: `rival${l.ball}${l.pocket}`,
        kind: 'missed',
        text: percentWords(l.chance),
        at: { x: (l.fromX + l.toX) / 2, y: (l.fromY + l.toY) / 2 },
        size: 46,
      })
    return list
  })

  /** Lines that no label should lie on. */
  const lines = computed(() => [
    ...(escape.value?.mirror ? [escape.value.mirror.points] : []),
    ...rivalLines.value.map((l) => [
      { x: l.fromX, y: l.fromY },
      { x: l.toX, y: l.toY },
    ]),
  ])
  /** Balls that the list calls by name. */
  const named = computed(() =>
    decide.isOpen
      ? decide.items.flatMap((i) =>
          i.kind === 'attack'
            ? [i.attack.choice.stroke.pot!.ball]
            : i.kind === 'safety'
              ? [i.safety.ball, ...i.safety.balls]
              : [i.escape.ball],
        )
      : [],
  )

  return { lines, named, safety, escape, rivalLines, openingEnds, namings }
})
