import throwaways from 'disposable-email-domains-js'
import freeDomains from 'free-email-domains'
import { remember } from '../remember'

export const EMAIL_KINDS = ['work', 'personal', 'role', 'throwaway'] as const
export type EmailKind = (typeof EMAIL_KINDS)[number]

export interface ReadEmail {
  /** Lower case, without quotes, spaces or invisible characters. */
  readonly address: string
  readonly kind: EmailKind
}

const ROLE_NAMES = new Set(
  `info sales contact hello office admin support help service team mail post enquiries enquiry inquiry marketing press
   booking bookings reservation reservations reception billing accounts invoice jobs careers hr noreply no-reply
   webmaster postmaster abuse kontakt vertrieb buero anfrage buchung rezeption verkauf zentrale bonjour accueil
   commercial direction ventes reservas ventas hola ufficio prenotazioni informazioni verkoop receptie stay shop orders`.split(
    /\s+/,
  ),
)
let freeMail: ReadonlySet<string> | null = null

/** A host of letter boxes for everybody, by the published list of them. */
function isFreeMail(domain: string): boolean {
  freeMail ??= new Set(freeDomains)
  return freeMail.has(domain)
}

const INVISIBLE = /[\u00ad\u200b-\u200f\u202a-\u202e\u2060\ufeff]/g

const LONGEST_PLAIN = 64

const AT = 0x40
const DOT = 0x2e
const DASH = 0x2d
const UNDERSCORE = 0x5f
const PLUS = 0x2b
const isSmall = (code: number): boolean => code >= 0x61 && code <= 0x7a
const isDigit = (code: number): boolean => code >= 0x30 && code <= 0x39

/**
 * True for a cell that holds one address in its one form already, of small ASCII letters: most do. One look at each
 * character: labels of the domain neither begin nor end with a dash, and the last is of letters.
 */
export function isPlainAddress(cell: string): boolean {
  if (cell.length > LONGEST_PLAIN) return false
  let at = -1
  let labels = 0
  let letters = 0
  let previous = DOT
  for (let i = 0; i < cell.length; i++) {
    const code = cell.charCodeAt(i)
    if (isSmall(code)) letters++
    else if (code === DOT || code === AT) {
      // Nothing stands between two dots, and no label ends with a dash.
      if (previous === DOT || (at !== -1 && previous === DASH) || (code === AT && at !== -1)) return false
      if (code === AT) at = i
      else if (at !== -1) labels++
      letters = 0
      previous = DOT
      continue
    } else if (code === DASH) {
      if (at !== -1 && previous === DOT) return false
      letters = Number.NEGATIVE_INFINITY
    } else if (isDigit(code)) letters = Number.NEGATIVE_INFINITY
    else if (at !== -1 || (code !== UNDERSCORE && code !== PLUS)) return false
    previous = code
  }
  return labels > 0 && letters >= 2
}

/** The e-mail addresses of a cell, in order; what is no address by its syntax is left out. */
export function readEmails(cell: string): readonly ReadEmail[] {
  if (isPlainAddress(cell)) return [{ address: cell, kind: kindOf(cell) }]
  if (!cell.includes('@') || partsOfSplitAddress(cell) !== null) return []
  const found = new Map<string, ReadEmail>()
  for (const piece of cell.replace(INVISIBLE, '').split(/[\s;,|]+|\/(?=[^/]*@)/)) {
    const address = piece
      .replace(/^mailto:/i, '')
      .replace(/^[<"'([]+|[>"')\].]+$/g, '')
      .toLowerCase()
    if (isAddress(address) && !found.has(address)) found.set(address, { address, kind: kindOf(address) })
  }
  return [...found.values()]
}

const SPLIT = /^\s*(\p{Ll}{2,})\s+(\p{Ll}{2,}@[^\s@,;|/]+)\s*$/u
const LABELS = new Set('mail email courriel correo posta'.split(' '))

/**
 * An address that a space has parted, or a word before an address: `anna krug@krug.example`. Which of them cannot be
 * told. A word that begins the address is whose it is, and a role's address has no other part.
 * @returns the two parts; null for any other text
 */
export function partsOfSplitAddress(cell: string): readonly [string, string] | null {
  const [, before = '', rest = ''] = SPLIT.exec(cell) ?? []
  if (before === '' || LABELS.has(before) || rest.startsWith(before) || !isAddress(rest)) return null
  return kindOf(rest) === 'role' ? null : [before, rest]
}

/** Syntax by RFC 5321's lengths and the unquoted local part of RFC 5322; domains need a dot. */
function isAddress(address: string): boolean {
  if (address.length > 254) return false
  return (
    /^[\p{L}\p{N}!#$%&'*+/=?^_`{|}~-]+(?:\.[\p{L}\p{N}!#$%&'*+/=?^_`{|}~-]+)*@(?=.{4,253}$)(?:[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?\.)+(?:\p{L}{2,63}|xn--[a-z0-9-]+)$/u.test(
      address,
    ) && address.indexOf('@') <= 64
  )
}

function kindOf(address: string): EmailKind {
  const at = address.indexOf('@')
  let end = address.indexOf('+')
  if (end === -1 || end > at) end = at
  while (end > 0 && isTrailing(address.charCodeAt(end - 1))) end--
  const kind = kindOfHost(address.slice(at + 1))
  return kind !== 'throwaway' && end <= LONGEST_ROLE && ROLE_NAMES.has(address.slice(0, end)) ? 'role' : kind
}

/** What the addresses of a host are that are no role's. */
const kindOfHost = remember((domain: string): EmailKind => {
  if (isThrowaway(domain)) return 'throwaway'
  return isFreeMail(domain) ? 'personal' : 'work'
})

let throwawayDomains: ReadonlySet<string> | null = null

/** A domain whose addresses are made for an hour, by the published list of them; its subdomains too. */
function isThrowaway(domain: string): boolean {
  throwawayDomains ??= throwaways.disposableEmailBlocklistSet()
  if (throwawayDomains.has(domain)) return true
  const dot = domain.indexOf('.')
  return dot !== -1 && domain.indexOf('.', dot + 1) !== -1 && isThrowaway(domain.slice(dot + 1))
}

const LONGEST_ROLE = Math.max(...[...ROLE_NAMES].map((name) => name.length))
/** A digit, a dash or an underscore: `info2`, `sales-` and `info_01` are roles too. */
const isTrailing = (code: number): boolean => isDigit(code) || code === DASH || code === UNDERSCORE
