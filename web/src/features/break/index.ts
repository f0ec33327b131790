import type { Feature } from '../../position/feature'
import { useView } from '../../position/view'
import { usePlanDrawing } from './planDrawing'
import PlanLayer from './PlanLayer.vue'

export { usePlans } from './plans'

/** What next, and after that? */
export function useBreakFeature(): Feature {
  const view = useView()
  const drawing = usePlanDrawing()
  return {
    layers: [
      {
        key: 'break',
        component: PlanLayer,
        namings: () => drawing.namings.value,
        lines: () => drawing.lines.value,
        named: () => drawing.named.value,
      },
    ],
    commands: [{ id: 'plan', name: 'plan a break', key: 'p', run: () => view.go('break') }],
  }
}
