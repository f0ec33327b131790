import { createSharedComposable } from '@vueuse/core'
import { useBreakFeature } from '../features/break'
import { usePracticeFeature } from '../features/practice'
import { useReadFeature } from '../features/read'
import { useSafetyFeature } from '../features/safety'
import { useShotFeature } from '../features/shot'

/** What the features give to the table: layers in the order in which they are drawn, and commands. */
export const useFeatures = createSharedComposable(() => {
  const features = [useReadFeature(), useBreakFeature(), useSafetyFeature(), useShotFeature(), usePracticeFeature()]
  return { layers: features.flatMap((f) => f.layers ?? []), commands: features.flatMap((f) => f.commands ?? []) }
})
