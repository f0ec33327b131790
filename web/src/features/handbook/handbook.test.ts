// @vitest-environment node
import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { topics } from '../../domain/handbook'
import { chapters } from './pages'

const root = join(import.meta.dirname, '../..')
const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((f) =>
    f.isDirectory() ? sources(join(folder, f.name)) : f.name.endsWith('.vue') ? [readFileSync(join(folder, f.name), 'utf8')] : [],
  )
const paragraphs = chapters.flatMap((c) => c.paragraphs)

describe('the handbook', () => {
  it('has each paragraph once, and each says what it means, how it is found and how exact it is', () => {
    expect(paragraphs.map((p) => p.topic).sort()).toEqual([...topics].sort())
    for (const p of paragraphs) for (const text of [p.title, p.means, p.found, p.exact]) expect(text.length, p.topic).toBeGreaterThan(3)
  })

  it('is led to by every figure that has a paragraph, and by none that has none', () => {
    const linked = sources(root).flatMap((text) => [...text.matchAll(/<HandbookLink[^>]*\sof="(\w+)"/g)].map((m) => m[1]))
    expect([...new Set(linked)].sort()).toEqual([...topics].sort())
  })
})
