import type { Schemas } from '../api/client'

/** Why a counted attempt failed, as it is tapped. */
export const reasonNames = {
  thick: 'too thick',
  thin: 'too thin',
  hard: 'too hard',
  soft: 'too soft',
  high: 'too high',
  low: 'too low',
  left: 'left side',
  right: 'right side',
  wrongBall: 'wrong ball',
  other: 'other',
} as const
export type Reason = keyof typeof reasonNames
export const reasons = Object.keys(reasonNames) as Reason[]
export const reasonName = (reason: string) => reasonNames[reason as Reason] ?? reason

/** Why a turn in a frame ended, as it is tapped. */
export const endReasons: { why: NonNullable<Schemas['EndReason']>; label: string }[] = [
  { why: 'thick', label: 'thick' },
  { why: 'thin', label: 'thin' },
  { why: 'tooHard', label: 'too hard' },
  { why: 'tooSoft', label: 'too soft' },
  { why: 'unmeantSide', label: 'unmeant side' },
  { why: 'outOfPosition', label: 'out of position' },
  { why: 'nothingOn', label: 'nothing on' },
  { why: 'wrongShot', label: 'wrong shot' },
]
export const endReasonWords = (why: string | null | undefined) => endReasons.find((r) => r.why === why)?.label ?? ''
