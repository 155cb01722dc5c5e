import { percentDecoded } from '../percent'
import { remember } from '../remember'
import { isOneSlipApart } from '../slip'
import { isPlainAddress, readEmails } from './emails'

/** Domains people mistype. */
const KNOWN_DOMAINS = [
  'gmail.com',
  'googlemail.com',
  'outlook.com',
  'hotmail.com',
  'yahoo.com',
  'icloud.com',
  't-online.de',
  'orange.fr',
  'wanadoo.fr',
  'libero.it',
  'btinternet.com',
] as const
/** Right as they stand, though one letter from another. */
const ALSO_RIGHT = new Set(['mail.com', 'email.com', 'ymail.com', 'yahoo.co', 'hotmail.co'])
const ENDINGS: Record<string, string> = {
  con: 'com',
  cmo: 'com',
  ocm: 'com',
  comm: 'com',
  vom: 'com',
  'co.ik': 'co.uk',
  'co.u': 'co.uk',
  ent: 'net',
  nte: 'net',
  exmaple: 'example',
  exampel: 'example',
}

/** Ways to write the sign so that no machine reads it. */
const AT_WORD =
  /(?:[([{<]\s*(?:at|ät|æt|arroba|arobase|chiocciola|a)\s*[)\]}>]|\s(?:at|arroba|arobase|chiocciola)\s|\*at\*|_at_)/iu
const AT_SIGN = new RegExp(`[@＠﹫]|${AT_WORD.source}`, 'iu')

/**
 * Repairs the writing of an e-mail cell that holds no address as it stands: spaces round the sign, `(at)`, commas for
 * dots, dots at the ends. Nothing is guessed; what does not become an address stays.
 */
export function mendEmail(cell: string): string | null {
  const plain = percentDecoded(cell) ?? cell
  if (isPlainAddress(cell) || (plain === cell && readEmails(cell).length > 0) || !AT_SIGN.test(plain)) return null
  const mended = plain
    .trim()
    .replace(/^(?:e-?mail|mail|courriel|correo|posta)\s*:\s*/i, '')
    .replace(new RegExp(`\\s*${AT_WORD.source}\\s*`, 'iu'), '@')
    .replace(/\s*(?:[([{<]\s*(?:dot|punkt|point|punto|ponto|punt)\s*[)\]}>])\s*/gi, '.')
    .replace(/\s+(?:dot|punkt|punto)\s+/gi, '.')
    .replace(/[＠﹫]/gu, '@')
    .replace(/\s*@+\s*/, '@')
    .replace(/\s*\.\s*/g, '.')
    .replace(/,(?=[a-z]{2,4}$)/i, '.')
    .replace(/\.{2,}/g, '.')
    .replace(/^\.+|\.+$|\.(?=@)|(?<=@)\./g, '')
  const read = readEmails(mended)
  return read.length === 1 && /^\S+$/.test(mended) ? mended : null
}

/**
 * What a person would take for an address at a glance, though other signs stand where the dot or the sign should:
 * `anna@krug;example`, `anna#krug.example`. Proposed, never applied.
 */
export function proposeReadable(cell: string): string | null {
  const text = cell.trim()
  if (readEmails(text).length > 0) return null
  const signed = text.includes('@') ? text : text.replace(/[#§&]|\(a\)/u, '@')
  const at = signed.indexOf('@')
  if (at < 1) return null
  const domain = signed
    .slice(at + 1)
    .trim()
    .replace(/^www\./i, '')
    .replace(/[\s,;:。．･_·]+/gu, '.')
  const proposed = `${signed.slice(0, at).replace(/\s+/g, '')}@${domain}`.toLowerCase()
  const read = readEmails(proposed)
  return read.length === 1 && read[0]?.address === proposed ? proposed : null
}

/**
 * An address whose domain looks like a slip of typing, as it was probably meant. Proposed, never applied.
 * @param publicHosts hosts that many of the same list are at
 */
export function proposeEmail(address: string, publicHosts: ReadonlySet<string> = NO_HOSTS): string | null {
  const at = address.lastIndexOf('@')
  const domain = address.slice(at + 1)
  if (publicHosts.has(domain)) return null
  const meant = domainMeant(domain) ?? hostMeant(domain, publicHosts)
  return meant === null ? null : `${address.slice(0, at)}@${meant}`
}

const NO_HOSTS: ReadonlySet<string> = new Set()

function hostMeant(domain: string, publicHosts: ReadonlySet<string>): string | null {
  for (const host of publicHosts) if (isOneSlipApart(domain, host)) return host
  return null
}

const domainMeant = remember((domain: string): string | null => {
  if (ALSO_RIGHT.has(domain) || (KNOWN_DOMAINS as readonly string[]).includes(domain)) return null
  const near = KNOWN_DOMAINS.find((known) => isOneSlipApart(domain, known))
  if (near) return near
  const ending = Object.keys(ENDINGS).find((wrong) => domain.endsWith(`.${wrong}`))
  return ending ? `${domain.slice(0, -ending.length)}${ENDINGS[ending]}` : null
})
