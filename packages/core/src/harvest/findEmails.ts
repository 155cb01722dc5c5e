import type { Business } from './business'
import { type Finding, quoteOf } from './findNumbers'
import type { Page } from './page'

const ADDRESS = /[a-z0-9][a-z0-9._%+-]{0,63}@(?:[a-z0-9](?:[a-z0-9-]{0,62}[a-z0-9])?\.)+[a-z]{2,24}/giu
/** Written out, so that machines do not read it: `info (at) heron.example`, `info [at] heron [dot] example`. */
const AT = String.raw`\s*(?:\(\s*(?:at|ät|arroba|chiocciola)\s*\)|\[\s*(?:at|ät|@)\s*\]|\{\s*at\s*\}|\s(?:at|ät)\s|\(\s*@\s*\))\s*`
const DOT = String.raw`(?:\.|\s*(?:\(\s*(?:dot|punkt|point|punto)\s*\)|\[\s*(?:dot|punkt|\.)\s*\]|\{\s*dot\s*\}|\s(?:dot|punkt)\s)\s*)`
const WRITTEN_OUT = new RegExp(
  `([a-z0-9][a-z0-9._%+-]{0,63})${AT}([a-z0-9-]{1,63}(?:${DOT}[a-z0-9-]{1,63}){1,4})`,
  'giu',
)
/** Files and pictures have names that look like addresses. */
const FILE = /\.(?:png|jpe?g|gif|svg|webp|css|js|pdf)$/i
/** Nobody's letter box. */
const NOBODY = /^(?:example|test|user|name|you|your|email|mail|no-?reply|noreply|donotreply)@/i

/** Addresses on a page, each as often as it stands there. */
export function findEmails(page: Page, business: Business | null): readonly Finding[] {
  return [
    ...page.links.flatMap(({ href, text }) => addressOfLink(href, text)),
    ...(business?.emails ?? []).flatMap((raw) => found(raw, raw, 'structured-data', 0.97, raw)),
    ...page.blocks.flatMap(({ text }) => addressesOf(text)),
  ]
}

function addressOfLink(href: string, text: string): readonly Finding[] {
  const address = /^mailto:([^?]+)/i.exec(href)?.[1]
  if (address === undefined) return []
  const decoded = safely(address)
  return found(decoded, decoded, 'link', 0.98, text.replace(/\s+/g, ' ').trim() || decoded)
}

function addressesOf(text: string): readonly Finding[] {
  const plain = [...text.matchAll(ADDRESS)].flatMap((match) =>
    found(match[0], match[0], 'text', 0.9, quoteOf(text, match.index, match.index + match[0].length)),
  )
  const written = [...text.matchAll(WRITTEN_OUT)].flatMap((match) => {
    const [raw, local = '', host = ''] = match
    const address = `${local}@${host.replace(new RegExp(DOT, 'giu'), '.')}`
    return found(address, raw, 'text', 0.75, quoteOf(text, match.index, match.index + raw.length))
  })
  return [...plain, ...written]
}

function found(
  address: string,
  raw: string,
  how: Finding['how'],
  confidence: number,
  quote: string,
): readonly Finding[] {
  const value = address.trim().toLowerCase().replace(/\.+$/, '')
  const whole = new RegExp(`^${ADDRESS.source}$`, 'iu')
  if (!whole.test(value) || FILE.test(value)) return []
  return [{ kind: 'email', value, raw: raw.trim(), how, confidence: NOBODY.test(value) ? 0.3 : confidence, quote }]
}

function safely(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
