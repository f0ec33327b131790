/** Groups of attempts in the order of their colours: first what was counted before a change, if anything was, then each change. */
export const groupsOf = (attempts: readonly { group?: string | null }[]) =>
  [...new Set(attempts.map((a) => a.group ?? ''))].sort((a, b) => (a ? 1 : 0) - (b ? 1 : 0))
