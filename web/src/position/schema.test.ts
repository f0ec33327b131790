// @vitest-environment node
import Ajv2020 from 'ajv/dist/2020'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const docs = (name: string) => readFileSync(new URL(`../../../docs/${name}`, `file://${__dirname}/`), 'utf8')
const compiled = (name: string) => new Ajv2020({ strict: true, allowUnionTypes: true }).compile(JSON.parse(docs(name)))
const valid = compiled('position.schema.json')
const validFrame = compiled('frame.schema.json')
const examples = () => [...docs('formats.md').matchAll(/```json\n([\s\S]*?)```/g)].map((m) => JSON.parse(m[1]))
const example = () => examples()[0]

describe('the schema of a position file', () => {
  it('holds for the example in docs/formats.md', () => {
    expect(valid(example()), JSON.stringify(valid.errors)).toBe(true)
  })

  it('refuses what the import refuses', () => {
    const broken: ((file: ReturnType<typeof example>) => void)[] = [
      (f) => (f.format = 'other'),
      (f) => (f.version = 3),
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

describe('the schema of a frame file', () => {
  it('holds for the example in docs/formats.md', () => {
    expect(validFrame(examples()[1]), JSON.stringify(validFrame.errors)).toBe(true)
  })

  it('refuses what the import refuses', () => {
    const broken: ((file: ReturnType<typeof example>) => void)[] = [
      (f) => (f.format = 'deep-baize-position'),
      (f) => delete f.shots,
      (f) => (f.shots[0].potted = ['puce']),
      (f) => delete f.shots[0].kind,
      (f) => (f.shots[2].why = 'unlucky'),
      (f) => (f.shots[0].white.x = 9),
      (f) => (f.shots[3].points = 5),
    ]
    for (const change of broken) {
      const file = examples()[1]
      change(file)
      expect(validFrame(file), change.toString()).toBe(false)
    }
  })
})
