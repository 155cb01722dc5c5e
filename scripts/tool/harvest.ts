import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { harvest as harvestPage } from '@upper-field/core/harvest'
import { print } from './print'

/** No page of a business is as long as this, in bytes. */
const LONGEST = 20_000_000

/** Prints the numbers and addresses on one page as JSON. */
export async function harvest(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { url: { type: 'string' }, country: { type: 'string' } },
  })
  const [path] = positionals
  if (!path) throw new Error('Name an HTML file.')
  if (!values.url) throw new Error('Say where the page stands: --url ADDRESS')
  const bytes = readFileSync(path)
  if (bytes.length > LONGEST)
    throw new Error(`${path} is too long to be a page: ${LONGEST / 1_000_000} MB are read at most.`)
  const { findings, business } = harvestPage(decode(bytes), {
    url: values.url,
    country: values.country?.toUpperCase() ?? null,
  })
  await print(`${JSON.stringify({ findings, business })}\n`)
}

/** By its byte order mark, by what it says of itself, else UTF-8; what is none of that is read as Windows-1252. */
function decode(bytes: Uint8Array): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 2048))
  const said = /<meta[^>]+charset=["']?([a-z0-9_-]+)/i.exec(head)?.[1]
  for (const label of [markOf(bytes), said, 'utf-8']) {
    if (!label) continue
    try {
      return new TextDecoder(label, { fatal: true }).decode(bytes)
    } catch {
      // Not in this encoding, or one that nobody knows: the next is tried.
    }
  }
  return new TextDecoder('windows-1252').decode(bytes)
}

function markOf(bytes: Uint8Array): string | null {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8'
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  return bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null
}
