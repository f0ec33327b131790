// Prints how many tests passed and failed, by a report of a .NET suite (.trx) or of the page's units (.json).
import { readFileSync } from 'node:fs'

const [file] = process.argv.slice(2)
const text = readFileSync(file, 'utf8')
if (file.endsWith('.json')) {
  const r = JSON.parse(text)
  console.log(r.numPassedTests, r.numFailedTests + (r.numFailedTests === 0 ? r.numFailedTestSuites : 0))
} else {
  const counters = /<Counters ([^>]*)>/.exec(text)[1]
  const count = (name) => Number(new RegExp(`\\b${name}="(\\d+)"`).exec(counters)?.[1] ?? 0)
  console.log(count('passed'), count('failed') + count('error') + count('timeout') + count('aborted'))
}
