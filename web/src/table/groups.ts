/** Groups of attempts in the order of their colours: those before anything was changed first, if there are any, then each change. */
export const groupsOf = (attempts: readonly { group?: string | null }[]) =>
  [...new Set(attempts.map((a) => a.group ?? ''))].sort((a, b) => (a ? 1 : 0) - (b ? 1 : 0))
