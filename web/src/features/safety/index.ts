import type { Feature } from '../../position/feature'
import { useView } from '../../position/view'
import { useDecideDrawing } from './decideDrawing'
import DecideLayer from './DecideLayer.vue'

export { useDecide } from './decide'

/** Or leave it? */
export function useSafetyFeature(): Feature {
  const view = useView()
  const drawing = useDecideDrawing()
  return {
    layers: [
      {
        key: 'safety',
        component: DecideLayer,
        namings: () => drawing.namings.value,
        lines: () => drawing.lines.value,
        named: () => drawing.named.value,
      },
    ],
    commands: [{ id: 'decide', name: 'decide: attack or defend, and how to get out of a snooker', key: 'v', run: () => view.go('safety') }],
  }
}
