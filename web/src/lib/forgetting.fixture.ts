import { beforeEach } from 'vitest'
import { forgetAnswers } from './keptAnswers'

// In tests: what one test was answered is not known to the next.
beforeEach(() => forgetAnswers())
