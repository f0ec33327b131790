/** What the keyboard can do: each with a name, the key it starts with, where it holds, and what it does. */
export type Command = {
  id: string
  name: string
  /** As KeyboardEvent.key, in small letters; "ctrl+" before it where the control key is held. */
  key: string
  /** The only place where it holds, by its route's name; else at the table. Another place may use its key for something else. */
  place?: string
  /** At the table only, unless it says otherwise. */
  isEverywhere?: boolean
  /** Shift makes the step ten times as large, instead of another key. */
  takesShift?: boolean
  /** Several steps make one gesture that ends by itself. */
  endsItself?: boolean
  run: (step: number) => unknown
}
