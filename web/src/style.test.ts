// @vitest-environment node
import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const root = import.meta.dirname
const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((f) =>
    f.isDirectory() ? files(join(folder, f.name)) : /\.(vue|css)$/.test(f.name) ? [join(folder, f.name)] : [],
  )

describe('the dress', () => {
  it('has five sizes of type and no other; drawings have units of their own', () => {
    const others = files(root).flatMap((path) =>
      [...readFileSync(path, 'utf8').matchAll(/font-size:\s*[\d.]+(rem|em|pt|%)/g)].map((m) => `${path.slice(root.length)}: ${m[0]}`),
    )
    expect(others).toEqual([])
    const sizes = [...readFileSync(join(root, 'style.css'), 'utf8').matchAll(/--type-\d: [\d.]+rem/g)]
    expect(sizes).toHaveLength(5)
  })

  it('keeps its gaps, margins and padding to six spaces; an indent may follow its letters (em)', () => {
    const others = files(root).flatMap((path) =>
      [...readFileSync(path, 'utf8').matchAll(/\b(gap|margin|padding)[a-z-]*:[^;}]*[1-9][\d.]*(px|rem)\b/g)].map(
        (m) => `${path.slice(root.length)}: ${m[0]}`,
      ),
    )
    expect(others).toEqual([])
    const spaces = [...readFileSync(join(root, 'style.css'), 'utf8').matchAll(/--space-\d: \d+px/g)]
    expect(spaces).toHaveLength(6)
  })
})
