// @vitest-environment node
import Ajv2020 from 'ajv/dist/2020'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const docs = (name: string) => readFileSync(new URL(`../../../docs/${name}`, `file://${__dirname}/`), 'utf8')
const compiled = (name: string) => new Ajv2020({ strict: true, allowUnionTypes: true }).compile(JSON.parse(docs(name)))
const valid = compiled('position.schema.json')
const validFrame = compiled('frame.schema.json')
// Formats of times and ids are the server's business.
const validAttempts = new Ajv2020({ strict: true, allowUnionTypes: true, validateFormats: false }).compile(
  JSON.parse(docs('attempts.schema.json')),
)
const examples = () => [...docs('formats.md').matchAll(/```json\n([\s\S]*?)```/g)].map((m) => JSON.parse(m[1]))
const example = (format = 'deep-baize-position') => examples().find((e) => e.format === format)
const frameExample = () => example('deep-baize-frame')

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

describe('the schema of the lines that strokes leave', () => {
  const file = (trial: Record<string, unknown>) => ({
    format: 'deep-baize-position',
    version: 2,
    name: 'With lines',
    balls: [{ id: 'white', x: 1, y: 1 }],
    trials: [{ id: 'k1', name: '½ low, 4', stroke: { height: -0.5 }, line: [{ x: 1, y: 1 }], ...trial }],
  })
  it('holds what the page keeps, and refuses a place off the table or a name that is missing', () => {
    expect(valid(file({ seenWhite: { x: 1.2, y: 0.7 }, seenBall: null, met: 0, balls: null, shown: true }))).toBe(true)
    expect(valid(file({ missed: 'thick', hit: true, earlier: [{ white: { x: 1, y: 1 }, ball: null, missed: null }] }))).toBe(true)
    expect(valid(file({ missed: 'short' }))).toBe(false)
    expect(valid(file({ earlier: [{ ball: null }] }))).toBe(false)
    expect(valid(file({ line: [{ x: 9, y: 1 }] }))).toBe(false)
    expect(valid(file({ name: '' }))).toBe(false)
    expect(valid(file({ colour: 'red' }))).toBe(false)
  })
})

describe('the schema of a frame file', () => {
  it('holds for the example in docs/formats.md', () => {
    expect(validFrame(frameExample()), JSON.stringify(validFrame.errors)).toBe(true)
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
      const file = frameExample()
      change(file)
      expect(validFrame(file), change.toString()).toBe(false)
    }
  })
})

describe('the schema of a file of attempts', () => {
  const attempts = () => example('deep-baize-attempts')

  it('holds for the example in docs/formats.md', () => {
    expect(validAttempts(attempts()), JSON.stringify(validAttempts.errors)).toBe(true)
  })

  it('refuses what the import refuses', () => {
    const broken: ((file: ReturnType<typeof example>) => void)[] = [
      (f) => (f.format = 'deep-baize-frame'),
      (f) => (f.attempts = []),
      (f) => delete f.attempts[0].session,
      (f) => (f.attempts[0].revision = 0),
      (f) => (f.attempts[0].mood = 'good'),
    ]
    for (const change of broken) {
      const file = attempts()
      change(file)
      expect(validAttempts(file), change.toString()).toBe(false)
    }
  })
})
