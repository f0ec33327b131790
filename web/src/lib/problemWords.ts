import type { FieldError, Problem } from '../api/client'

/** The server's problems have codes; here is what the page says of them, and what to do. */
const what: Record<string, { title: string; todo: string }> = {
  away: { title: 'No connection to Deep Baize.', todo: 'Your changes are still here.' },
  slow: { title: 'No answer yet.', todo: '' },
  databaseAway: {
    title: 'The database does not answer.',
    todo: 'Your changes are still here. Try again once the database is back.',
  },
  unexpected: { title: 'Something went wrong.', todo: 'Nothing was changed. Details are in the log.' },
  conflict: { title: 'It was saved elsewhere since you opened it.', todo: 'Your version is still here.' },
  databaseCrowded: { title: 'The database is busy.', todo: 'Your changes are still here. Try again in a moment.' },
  databaseBusy: { title: 'The database took too long.', todo: 'Your changes are still here. Try again in a moment.' },
  diskFull: { title: 'The disk of the database is full.', todo: 'Your changes are still here. Make room on it, and save again.' },
  readOnly: { title: 'The database is read-only at the moment.', todo: 'Your changes are still here.' },
  stopping: { title: 'Deep Baize is being stopped.', todo: 'Saved work is safe. Try again once it is back.' },
  tookTooLong: { title: 'The search took too long and was stopped.', todo: 'Try again later.' },
  tooManySearches: { title: 'Too many searches at once.', todo: 'Wait for one to finish.' },
  tooManyRequests: { title: 'Too many requests.', todo: 'Wait a second, and try again.' },
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
