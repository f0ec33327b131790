import type { Feature } from '../../position/feature'
import type { Naming } from '../../table/labels'
import { useMap } from './map'
import ReadLayer from './ReadLayer.vue'
import { useReading } from './reading'

export { useMap } from './map'

/** What is on, and where to be for it. */
export function useReadFeature(): Feature {
  const map = useMap()
  const reading = useReading()
  return {
    layers: [
      {
        key: 'read',
        component: ReadLayer,
        namings: (): Naming[] =>
          map.isOpen && map.map?.best ? [{ key: 'best', kind: 'brass', text: 'best place', at: map.map.best, size: 50 }] : [],
        named: () => (reading.isOpen ? (reading.options ?? []).map((o) => o.cut.ball) : []),
        hover: map.pointAt,
      },
    ],
    commands: [{ id: 'map', name: 'show where to be for the next ball', key: 'm', run: () => (map.isOpen = !map.isOpen) }],
  }
}
