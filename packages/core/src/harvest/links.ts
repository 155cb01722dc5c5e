import { fold } from '../table'
import type { Page } from './page'

/** A page of the same site that a page leads to. */
export interface SiteLink {
  readonly url: string
  /** Its address or its words say that it tells how a business is reached. */
  readonly isContact: boolean
}

/** Words of pages that tell how somebody is reached and who they are, folded, in the languages of most pages. */
const CONTACT_WORDS: ReadonlySet<string> = new Set(
  `contact contacts kontakt kontakte contacto contactos contatti contatto contattaci contato contactez contacter contactar contactus kontaktai yhteystiedot kapcsolat
  impressum imprint legal mentions mentions-legales avviso-legale note-legali colofon legal-notice about about-us ueber-uns uber-uns
  om-oss om-os over-ons chi-siamo qui-sommes-nous quienes-somos o-nas anfahrt directions find-us acces como-llegar dove-siamo reach-us
  team ansprechpartner kundenservice`
    .split(/\s+/)
    .filter(Boolean),
)
/** What these lead to is no page to be read. */
const NO_PAGE =
  /\.(?:pdf|jpe?g|png|gif|webp|svg|ico|css|js|mjs|zip|gz|rar|7z|docx?|xlsx?|pptx?|mp[34]|avi|mov|webm|woff2?|ttf|ics|vcf|xml|json|rss)$/i
/** Longer addresses are made by programs for programs. */
const LONGEST = 500
/** So many links of one page are looked at. */
const MOST = 2000

/** The site an address is of: its host, whether it is written with `www.` or not. */
export const siteOf = (url: string): string => new URL(url).host.toLowerCase().replace(/^www\./, '')

/** Pages of the same site that a page leads to, each once, those that tell how the business is reached first. */
export function linksOn(page: Pick<Page, 'links'>, url: string): readonly SiteLink[] {
  const site = siteOf(url)
  const here = withoutHash(new URL(url))
  const found = new Map<string, SiteLink>()
  for (const { href, text } of page.links.slice(0, MOST)) {
    const target = URL.canParse(href, url) ? new URL(href, url) : null
    if (!target || !/^https?:$/.test(target.protocol) || siteOf(target.href) !== site) continue
    if (target.username !== '' || target.password !== '' || NO_PAGE.test(target.pathname)) continue
    const address = withoutHash(target)
    if (address === here || address.length > LONGEST) continue
    const isContact = isContactLink(target.pathname, text)
    if (!found.has(address) || isContact) found.set(address, { url: address, isContact })
  }
  return [...found.values()].sort((a, b) => Number(b.isContact) - Number(a.isContact))
}

function withoutHash(url: URL): string {
  const plain = new URL(url)
  plain.hash = ''
  return plain.href
}

function isContactLink(path: string, text: string): boolean {
  const whole = fold(`${decoded(path)} ${text}`).split(/[^\p{L}\p{N}-]+/u)
  const words = whole.flatMap((word) => [word, ...word.split('-')])
  const said = fold(text).trim().replace(/\s+/g, '-')
  return [said, ...words].some((word) => CONTACT_WORDS.has(word))
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path)
  } catch {
    return path
  }
}
