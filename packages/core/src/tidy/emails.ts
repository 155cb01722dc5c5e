import throwaways from 'disposable-email-domains-js'
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
const FREE_MAIL =
  /^(?:gmail|googlemail|outlook|hotmail|live|msn|yahoo|ymail|icloud|me|aol|gmx|web|t-online|freenet|orange|wanadoo|laposte|free|libero|virgilio|ziggo|btinternet|postbox|brightmail|hearth|kinpost)\./

const INVISIBLE = /[\u00ad\u200b-\u200f\u202a-\u202e\u2060\ufeff]/g

/** An address in its one form already, of ASCII letters: most are. */
const PLAIN = /^[a-z\d_+-]+(?:\.[a-z\d_+-]+)*@(?:[a-z\d](?:[a-z\d-]{0,61}[a-z\d])?\.)+[a-z]{2,63}$/
const LONGEST_PLAIN = 64

/** The e-mail addresses of a cell, in order; what is no address by its syntax is left out. */
export function readEmails(cell: string): readonly ReadEmail[] {
  if (cell.length <= LONGEST_PLAIN && PLAIN.test(cell)) return [{ address: cell, kind: kindOf(cell) }]
  if (!cell.includes('@')) return []
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
  const domain = address.slice(at + 1)
  if (isThrowaway(domain)) return 'throwaway'
  if (end <= LONGEST_ROLE && ROLE_NAMES.has(address.slice(0, end))) return 'role'
  return isFreeMail(domain) ? 'personal' : 'work'
}

let throwawayDomains: ReadonlySet<string> | null = null

/** A domain whose addresses are made for an hour, by the published list of them; its subdomains too. */
const isThrowaway = remember((domain: string): boolean => {
  throwawayDomains ??= throwaways.disposableEmailBlocklistSet()
  for (let at = 0; at !== -1 && domain.indexOf('.', at) !== -1; at = nextLabel(domain, at))
    if (throwawayDomains.has(domain.slice(at))) return true
  return false
})

const nextLabel = (domain: string, at: number): number => {
  const dot = domain.indexOf('.', at)
  return dot === -1 ? -1 : dot + 1
}

const LONGEST_ROLE = Math.max(...[...ROLE_NAMES].map((name) => name.length))
/** A digit, a dash or an underscore: `info2`, `sales-` and `info_01` are roles too. */
const isTrailing = (code: number): boolean => (code >= 48 && code <= 57) || code === 0x2d || code === 0x5f
const isFreeMail = remember((domain: string) => FREE_MAIL.test(domain))
