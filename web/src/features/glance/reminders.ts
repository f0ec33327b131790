import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas, Stroke } from '../../api/client'

/** Words for the body before a stroke: common practice, no source, and no teaching by machine. Each can be changed or switched off. */
export type Reminder = { id: string; text: string; of: 'all' | 'screw' | 'power' | 'side' | 'soft' | 'rail'; isOn: boolean }
const usual: Reminder[] = [
  { id: 'choose', text: 'Choose the shot; see the next ball', of: 'all', isOn: true },
  { id: 'feel', text: 'Feel the stroke, then go down', of: 'all', isOn: true },
  { id: 'still', text: 'Head and body still', of: 'all', isOn: true },
  { id: 'chalk', text: 'Chalk', of: 'side', isOn: true },
  { id: 'low', text: 'Bridge hand low, cue level, through the ball', of: 'screw', isOn: true },
  { id: 'pause', text: 'Pause at the back, then smoothly through', of: 'power', isOn: true },
  { id: 'short', text: 'Short backswing, shorter bridge', of: 'soft', isOn: true },
  { id: 'high', text: 'High on the white, hand flat on the rail', of: 'rail', isOn: true },
]

/** Which kinds of stroke this one is. */
export function kindsOf(
  stroke: Pick<Stroke, 'height' | 'side' | 'pace'>,
  reach: Pick<Schemas['ReachResult'], 'elevationDegrees'> | null,
): Reminder['of'][] {
  const kinds: Reminder['of'][] = ['all']
  if (stroke.height < -0.3) kinds.push('screw')
  if (stroke.pace >= 6) kinds.push('power')
  if (stroke.pace <= 3) kinds.push('soft')
  if (Math.abs(stroke.side) >= 0.25 || Math.abs(stroke.height) >= 1) kinds.push('side')
  if ((reach?.elevationDegrees ?? 0) > 6) kinds.push('rail')
  return kinds
}

export function useReminders() {
  const own = useLocalStorage<Reminder[]>('deep-baize-reminders', usual)
  const isOn = useLocalStorage('deep-baize-reminders-on', false)
  const change = (id: string, to: Partial<Reminder>) => (own.value = own.value.map((r) => (r.id === id ? { ...r, ...to } : r)))
  const reset = () => (own.value = usual.map((r) => ({ ...r })))
  return { isOn, list: computed(() => own.value), change, reset }
}
