// Prints the ten slowest tests, by the reports of .NET suites (.trx).
import { existsSync, readFileSync } from 'node:fs'

const tests = process.argv
  .slice(2)
  .filter((file) => existsSync(file))
  .flatMap((file) =>
    [...readFileSync(file, 'utf8').matchAll(/<UnitTestResult [^>]*>/g)].map(([element]) => {
      const value = (name) => new RegExp(`\\b${name}="([^"]*)"`).exec(element)?.[1] ?? ''
      const [hours, minutes, seconds] = value('duration').split(':').map(Number)
      return { name: value('testName'), seconds: 3600 * hours + 60 * minutes + seconds }
    }),
  )
  .sort((a, b) => b.seconds - a.seconds)
console.log('The slowest tests, s:')
for (const { name, seconds } of tests.slice(0, Number(process.env.SLOWEST ?? 10))) console.log(`  ${seconds.toFixed(1)}  ${name}`)
