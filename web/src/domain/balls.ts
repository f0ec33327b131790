/** How balls are drawn and called. The colours are the rules' own; the marks say the same without colour. */
const looks: Record<string, { fill: string; ink: string; mark: string; name: string }> = {
  white: { fill: '#f8f4e6', ink: '#3a3527', mark: '+', name: 'white' },
  yellow: { fill: '#e6c229', ink: '#26210a', mark: '2', name: 'yellow' },
  green: { fill: '#1d8f4e', ink: '#ffffff', mark: '3', name: 'green' },
  brown: { fill: '#7d4b2a', ink: '#ffffff', mark: '4', name: 'brown' },
  blue: { fill: '#2f66c4', ink: '#ffffff', mark: '5', name: 'blue' },
  pink: { fill: '#ee9ab9', ink: '#3b1022', mark: '6', name: 'pink' },
  black: { fill: '#17171a', ink: '#ffffff', mark: '7', name: 'black' },
}
const red = { fill: '#c22b33', ink: '#ffffff', mark: '·', name: 'red' }

export const lookOf = (id: string) => looks[id] ?? red

/** Every kind of ball that is drawn. */
export const balls = [...Object.keys(looks), 'red']

/** Its colour in the light (1: white) or away from it (−1: black). */
export function shadeOf(id: string, light: number): string {
  const towards = light > 0 ? 255 : 0
  const part = (at: number) => {
    const c = parseInt(lookOf(id).fill.slice(at, at + 2), 16)
    return Math.round(c + (towards - c) * Math.abs(light))
      .toString(16)
      .padStart(2, '0')
  }
  return `#${part(1)}${part(3)}${part(5)}`
}

/** The light on it, among the drawing's definitions (PlanDefs). */
export const lightOn = (id: string) => `url(#ball-${isRed(id) ? 'red' : id})`

export const isRed = (id: string) => id.startsWith('red-')

/** "red 3", "black". */
export const nameOf = (id: string) => (isRed(id) ? `red ${id.slice(4)}` : id)

/** "the yellow's top pocket": by the side that the yellow or the green stands on. */
export function pocketName(pocket: string): string {
  const [side, place] = pocket.split('-')
  return place === 'top' ? `top ${side}-side` : place === 'middle' ? `middle ${side}-side` : `baulk ${side}-side`
}

/** "red 3", "the black"; "it" where none is named. */
export const theBall = (id: string | null | undefined) => (!id ? 'it' : isRed(id) ? nameOf(id) : `the ${nameOf(id)}`)

/** "a red", "a colour", "the black": what is on. */
export const aBall = (kind: string) => (kind === 'red' ? 'a red' : kind === 'colour' ? 'a colour' : `the ${kind}`)

/** "red", "black": what a frame's record calls a ball. */
export const kindOf = (id: string) => (isRed(id) ? 'red' : id)
