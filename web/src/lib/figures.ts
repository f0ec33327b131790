/** Metres in one of each unit that a length may be typed in. */
const lengths: Record<string, number> = {
  mm: 0.001,
  cm: 0.01,
  m: 1,
  in: 0.0254,
  inch: 0.0254,
  inches: 0.0254,
  '"': 0.0254,
  '″': 0.0254,
  ft: 0.3048,
  "'": 0.3048,
  '′': 0.3048,
}

/** The sign between thousands in a locale, such as "." in German. */
function groupSign(locale: string): string {
  try {
    return new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(1_234_567).find((p) => p.type === 'group')?.value ?? ','
  } catch {
    return ','
  }
}

/**
 * The figure that was typed, in the unit of its field; null if it is none. Commas and points are read as in the locale: "2.630" is two
 * thousand in German and two and a bit in English, "1,5" one and a half in both. A unit may be typed with it: "1.5 m" in a field of mm.
 * @param unit Of the field, such as mm or °.
 * @param digits That the field shows after its decimal point.
 */
export function readFigure(typed: string, { locale = 'en', unit = '', digits = 0 } = {}): number | null {
  const parts = /^([-−–+]?)\s*((?:[\d.,'’\s  ]*\d)[.,]?|[.,]\d+)\s*([^\d\s.,][^\d]*)?$/u.exec(typed.trim())
  if (!parts) return null
  const [, sign, figure, suffix = ''] = parts
  const plain = figure.replace(/['’\s  ]/gu, '')
  const signs = plain.match(/[.,]/g) ?? []
  const last = signs.at(-1)
  let text = plain
  if (last) {
    const tail = plain.slice(plain.lastIndexOf(last) + 1)
    const head = plain.slice(0, plain.lastIndexOf(last))
    const looksGrouped = tail.length === 3 && /^[1-9]\d{0,2}([.,]\d{3})*$/.test(head)
    // What the field itself shows so is no thousand.
    const isShownSo = last === '.' && digits >= 3
    const isGroup = looksGrouped && !isShownSo && (signs.length > 1 ? signs.every((s) => s === last) : last === groupSign(locale))
    text = isGroup ? plain.replace(/[.,]/g, '') : `${head.replace(/[.,]/g, '')}.${tail}`
  }
  const value = Number(text) * (sign === '-' || sign === '−' || sign === '–' ? -1 : 1)
  if (!Number.isFinite(value)) return null
  const said = suffix.trim().toLowerCase()
  if (!said || said === unit.toLowerCase()) return value
  const [from, to] = [lengths[said], lengths[unit]]
  return from && to ? (value * from) / to : null
}
