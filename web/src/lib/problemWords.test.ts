import { describe, expect, it } from 'vitest'
import { Problem } from '../api/client'
import { detailOf, problemWords, titleOf } from './problemWords'

describe('problems', () => {
  it('are worded by their code, whatever the server’s own words', () => {
    const away = new Problem(503, 'whatever', 'the server says', [], null, 'databaseAway')
    expect(titleOf(away)).toBe('The database does not answer.')
    expect(problemWords(away)).toContain('Try again once the database is back')
  })

  it('of fields say what is wrong and what is allowed', () => {
    const wrong = new Problem(
      400,
      'Input',
      '',
      [{ field: 'stroke.pace', message: '14 is out of range.', allowed: '1 to 10', code: 'outOfRange' }],
      null,
      'input',
    )
    expect(problemWords(wrong)).toBe('14 is out of range. Allowed: 1 to 10.')
    // Away from its control, the field is named.
    expect(detailOf(wrong)).toBe('stroke.pace: 14 is out of range. Allowed: 1 to 10.')
  })

  it('that are not known are told as they came', () => {
    expect(problemWords(new Problem(404, 'There is no such frame.', 'It may have been deleted.', [], null, 'notFound'))).toBe(
      'There is no such frame. It may have been deleted.',
    )
  })
})
