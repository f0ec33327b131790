import Ajv2020 from 'ajv/dist/2020'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const docs = (name: string) => readFileSync(new URL(`../../../docs/${name}`, `file://${__dirname}/`), 'utf8')
const valid = new Ajv2020({ strict: true, allowUnionTypes: true }).compile(JSON.parse(docs('position.schema.json')))
const example = () => JSON.parse(/```json\n([\s\S]*?)```/.exec(docs('formats.md'))![1])

describe('the schema of a position file', () => {
  it('holds for the example in docs/formats.md', () => {
    expect(valid(example()), JSON.stringify(valid.errors)).toBe(true)
  })

  it('refuses what the import refuses', () => {
    const broken: ((file: ReturnType<typeof example>) => void)[] = [
      (f) => (f.format = 'other'),
      (f) => (f.version = 2),
      (f) => delete f.balls,
      (f) => (f.balls[0].id = 'red-2'),
      (f) => (f.balls[1].id = 'red-16'),
      (f) => (f.balls[1].y = 9),
      (f) => (f.balls[1].y = '1'),
      (f) => (f.colour = 1),
      (f) => (f.stroke.pace = 11),
      (f) => (f.stroke.pot.pocket = 'left'),
    ]
    for (const change of broken) {
      const file = example()
      change(file)
      expect(valid(file), change.toString()).toBe(false)
    }
  })
})
