import type { FieldError, Problem } from '../api/client'

/** The server's problems have codes; here is what the page says of them, and what to do. */
const what: Record<string, { title: string; todo: string }> = {
  away: { title: 'No connection to Deep Baize.', todo: 'What you were editing is still here.' },
  slow: { title: 'No answer yet.', todo: '' },
  databaseAway: {
    title: 'The database does not answer.',
    todo: 'What you were editing is still here. Try again once the database is back.',
  },
  unexpected: { title: 'Something went wrong in Deep Baize itself.', todo: 'Nothing was changed. The server’s log says more.' },
  conflict: { title: 'It has been saved elsewhere since you opened it.', todo: 'Yours is still here.' },
  databaseCrowded: { title: 'The database has too much to do.', todo: 'What you were editing is still here. Try again in a moment.' },
  databaseBusy: { title: 'The database took too long.', todo: 'What you were editing is still here. Try again in a moment.' },
  diskFull: { title: 'The disk of the database is full.', todo: 'What you were editing is still here. Make room on it, and save again.' },
  readOnly: { title: 'The database takes no changes at the moment.', todo: 'What you were editing is still here.' },
  stopping: { title: 'Deep Baize is being stopped.', todo: 'Nothing that was saved is lost. Try again once it is back.' },
  tookTooLong: { title: 'The search took too long and was ended.', todo: 'Try again when less is going on.' },
  tooManySearches: { title: 'Too many searches at once.', todo: 'Let some of them end first.' },
  tooManyRequests: { title: 'That was too much at once.', todo: 'Wait a second, and try again.' },
  tooLarge: { title: 'That is too large.', todo: '' },
}

/** Titles of what is not there say what it was; those of faulty input are told by the fields. */
export const titleOf = (p: Problem) => what[p.code]?.title ?? p.message
export const detailOf = (p: Problem) =>
  p.errors.length ? p.errors.map((e) => `${e.field}: ${fieldWords(e)}`).join(' ') : (what[p.code]?.todo ?? p.detail)

/** "14 is out of range. Allowed: 1 to 10." */
export const fieldWords = (e: FieldError) => `${e.message} Allowed: ${e.allowed}.`

/** All of it in one line. */
export function problemWords(p: Problem): string {
  return p.errors.length ? p.errors.map(fieldWords).join(' ') : [titleOf(p), detailOf(p)].filter(Boolean).join(' ')
}
