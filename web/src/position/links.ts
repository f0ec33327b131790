import { defineStore } from 'pinia'
import { exchange, type Draft } from '../api/client'
import { useNotices } from '../lib/notices'
import { useAttempt } from '../lib/useAttempt'
import { contentOf, plainStroke } from '../domain/strokes'
import { useDraft } from './draft'

/**
 * A position in an address, after the #: version, then the file of the position (docs/formats.md) without what is plain, deflated and in
 * base64url. Nothing is saved for it.
 */
const mark = 'p1.'
/** Longer than any position makes it. */
const longest = 20_000
/** Coordinates to a tenth of a micrometre: balls that touch do not overlap by rounding. */
const rounded = (v: number) => Math.round(v * 1e7) / 1e7

async function through(bytes: Uint8Array<ArrayBuffer>, stream: CompressionStream | DecompressionStream): Promise<Uint8Array<ArrayBuffer>> {
  return new Uint8Array(await new Response(new Blob([bytes]).stream().pipeThrough(stream)).arrayBuffer())
}
const toText = (bytes: Uint8Array) =>
  btoa(String.fromCharCode(...bytes))
    .replace(/\+/g, '-')
    .replace(/\//g, '_')
    .replace(/=+$/, '')
const toBytes = (text: string) => Uint8Array.from(atob(text.replace(/-/g, '+').replace(/_/g, '/')), (c) => c.charCodeAt(0))

/** What comes after the # of an address that holds this draft. */
export async function linkOf({ name, about, content }: Pick<Draft, 'name' | 'about' | 'content'>): Promise<string> {
  const stroke = Object.fromEntries(
    Object.entries(content.stroke).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(plainStroke[key as 'aim'])),
  )
  const file = {
    format: 'deep-baize-position',
    version: 2,
    name,
    ...(about ? { about } : {}),
    balls: content.balls.map(({ id, x, y }) => ({ id, x: rounded(x), y: rounded(y) })),
    ...(Object.keys(stroke).length ? { stroke } : {}),
    ...(Object.keys(content.conditions).length ? { conditions: content.conditions } : {}),
    ...(content.frame ? { frame: content.frame } : {}),
  }
  return mark + toText(await through(new TextEncoder().encode(JSON.stringify(file)), new CompressionStream('deflate-raw')))
}

/** The file in the # of an address. Throws an Error with words for the user if it is none, or of a later version. */
export async function fileIn(hash: string): Promise<string> {
  if (!hash.startsWith(`#${mark}`)) throw new Error('This link is from a newer version. Update and open it again.')
  if (hash.length > longest) throw new Error('This link is too long for a position.')
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(
      await through(toBytes(hash.slice(mark.length + 1)), new DecompressionStream('deflate-raw')),
    )
  } catch {
    throw new Error('This link is damaged or incomplete. Ask for it again.')
  }
}

/** Positions that travel in an address. */
export const useLinks = defineStore('links', () => {
  const position = useDraft()
  const notices = useNotices()
  const { attempt } = useAttempt()

  async function copyLink() {
    const address = `${location.origin}/table/now/shot#${await linkOf(position.draft)}`
    try {
      await navigator.clipboard.writeText(address)
      notices.show({ kind: 'info', text: 'Link copied. It holds the position and its stroke.' })
    } catch {
      // Not every page may write to the clipboard.
      const { ElMessageBox } = await import('../ui/messageBox')
      await ElMessageBox.prompt('Copy this address:', 'Copy link', {
        inputValue: address,
        showCancelButton: false,
        confirmButtonText: 'Done',
      }).catch(() => {})
    }
    return address
  }

  /** Opens what an address holds, as a position of its own that is not saved; checked as a file is. */
  async function openLink(hash: string) {
    let file: string
    try {
      file = await fileIn(hash)
    } catch (e) {
      notices.show({ kind: 'error', text: (e as Error).message })
      return
    }
    await attempt(async () => {
      const draft = JSON.parse(await exchange('/api/positions/check', file)) as Draft
      const before = position.draft.name
      const back = position.begin(draft.name, contentOf(draft.content), draft.about)
      notices.show({
        kind: 'info',
        text: `“${draft.name}” came with the link. It is not saved yet.`,
        action: { label: `Back to “${before}”`, run: back },
      })
    }, 'Could not open the link')
  }

  return { copyLink, openLink }
})
