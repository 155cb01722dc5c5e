import type { World, WorldCompany, WorldNumber } from '../world'
import { createRandom } from '../world/random'

/** One page of the small web. */
export interface SitePage {
  readonly path: string
  readonly html: string
}

/** A business with its pages, and what is true about it. */
export interface Site {
  readonly host: string
  readonly pages: readonly SitePage[]
  /** Text of its robots.txt; null where it has none. */
  readonly robots: string | null
  /** E.164 of the lines it can be reached by, on pages that may be read. */
  readonly numbers: readonly string[]
  readonly emails: readonly string[]
}

/** Words of a page in the language of a country; English where there are none of its own. */
interface Words {
  readonly lang: string
  readonly phone: string
  readonly mobile: string
  readonly contact: string
  readonly contactPath: string
  readonly order: string
  readonly tax: string
  readonly open: string
}

const ENGLISH: Words = {
  lang: 'en',
  phone: 'Telephone',
  mobile: 'Mobile',
  contact: 'Contact',
  contactPath: '/contact',
  order: 'Order no.',
  tax: 'VAT',
  open: 'Open daily',
}
const GERMAN: Words = {
  lang: 'de',
  phone: 'Telefon',
  mobile: 'Mobil',
  contact: 'Kontakt',
  contactPath: '/kontakt',
  order: 'Bestellnummer',
  tax: 'USt-IdNr.',
  open: 'Täglich geöffnet',
}
const FRENCH: Words = {
  lang: 'fr',
  phone: 'Téléphone',
  mobile: 'Portable',
  contact: 'Nous contacter',
  contactPath: '/nous-contacter-contact',
  order: 'Commande n°',
  tax: 'TVA',
  open: 'Ouvert tous les jours',
}
const ITALIAN: Words = {
  lang: 'it',
  phone: 'Telefono',
  mobile: 'Cellulare',
  contact: 'Contatti',
  contactPath: '/contatti',
  order: 'Ordine n.',
  tax: 'Partita IVA',
  open: 'Aperto tutti i giorni',
}
const SPANISH: Words = {
  lang: 'es',
  phone: 'Teléfono',
  mobile: 'Móvil',
  contact: 'Contacto',
  contactPath: '/contacto',
  order: 'Pedido',
  tax: 'NIF',
  open: 'Abierto todos los días',
}
const DUTCH: Words = { ...ENGLISH, lang: 'nl', phone: 'Telefoon', mobile: 'Mobiel', tax: 'BTW', open: 'Dagelijks open' }
const WORDS: Readonly<Record<string, Words>> = {
  DE: GERMAN,
  AT: GERMAN,
  CH: GERMAN,
  FR: FRENCH,
  BE: FRENCH,
  IT: ITALIAN,
  ES: SPANISH,
  NL: DUTCH,
}

/** How many businesses have a site; each has two pages. */
const SITES = 52

/** Sites of the world's businesses, each written in another way than its neighbours. */
export function sitesOf(world: World): readonly Site[] {
  const random = createRandom(`${world.seed} web`)
  const mobiles = new Map(world.people.map(({ company, mobile }) => [company.id, mobile]))
  return world.companies.slice(0, SITES).map((company, at) => {
    const words = WORDS[company.place.country] ?? ENGLISH
    const written = STYLES[at % STYLES.length]?.({ company, words, mobile: mobiles.get(company.id) ?? null, random })
    if (!written) throw new Error('a style is missing')
    const { home, contact, numbers, emails } = written
    const page = (path: string, title: string, body: string): SitePage => ({
      path,
      html: `<!doctype html><html lang="${words.lang}"><head><meta charset="utf-8"><title>${title}</title>${written.head ?? ''}</head><body><nav><a href="/">Home</a> <a href="${words.contactPath}">${words.contact}</a> <a href="/menu.pdf">Menu</a> <a href="/gone">2019</a></nav><h1>${company.name}</h1>${body}</body></html>`,
    })
    return {
      host: company.domain,
      robots: at % 3 === 0 ? 'User-agent: *\nDisallow: /private/\n' : null,
      pages: [
        page('/', company.name, home),
        page(words.contactPath, words.contact, contact),
        page('/private/', 'Staff', `<p>${words.phone}: ${international(company.switchboard).replace(/\d$/, '0')}</p>`),
      ].filter(({ path }) => path !== '/private/' || at % 3 === 0),
      numbers: numbers.map(({ e164 }) => e164),
      emails,
    }
  })
}

interface Written {
  readonly head?: string
  readonly home: string
  readonly contact: string
  readonly numbers: readonly WorldNumber[]
  readonly emails: readonly string[]
}

interface StyleInput {
  readonly company: WorldCompany
  readonly words: Words
  readonly mobile: WorldNumber | null
  readonly random: ReturnType<typeof createRandom>
}

/** As it is dialled at home: the trunk prefix, and digits in groups. */
function national({ e164 }: WorldNumber, { trunk, code }: WorldCompany['place'], separator = ' '): string {
  const own = e164.slice(code.length + 1)
  const groups = own.match(/.{1,3}(?!.$)|.+/g) ?? [own]
  return separator === '/' ? `${trunk}${own.slice(0, 3)}/${own.slice(3)}` : `${trunk}${groups.join(separator)}`
}

const international = ({ e164 }: { readonly e164: string }): string => e164

const addressOf = ({ city, postalCode, place }: WorldCompany): string => `${postalCode} ${city}, ${place.spellings[0]}`
const mailOf = ({ domain }: WorldCompany): string => `hello@${domain}`

/** What looks like a number to call and is none. */
function lookAlikes({ company, words, random }: StyleInput): string {
  const digits = (n: number) => Array.from({ length: n }, () => random.below(10)).join('')
  return `<footer><p>${words.order} ${digits(4)}-${digits(6)} · ${words.tax} ${company.place.country}${digits(9)} · 47.${digits(4)}, 11.${digits(4)}</p>
<p>${words.open} 8:00–18:00 · 12.04.2026 – 30.09.2026 · © 2019–2026 · IBAN ${company.place.country}${digits(2)} ${digits(4)} ${digits(4)} ${digits(4)}</p>
<p>Fax: ${national(company.switchboard, company.place).replace(/\d$/, (last) => String((Number(last) + 1) % 10))} · 1.250,00 €</p></footer>`
}

type Style = (input: StyleInput) => Written

const mobileOf = (mobile: WorldNumber | null): readonly WorldNumber[] => (mobile ? [mobile] : [])

const STYLES: readonly Style[] = [
  // In a sentence, behind a word.
  (input) => ({
    home: `<p>${addressOf(input.company)}</p>${lookAlikes(input)}`,
    contact: `<p>${input.words.phone}: ${national(input.company.switchboard, input.company.place)}</p><p>${mailOf(input.company)}</p>${lookAlikes(input)}`,
    numbers: [input.company.switchboard],
    emails: [mailOf(input.company)],
  }),
  // Links to dial and to write to.
  (input) => ({
    home: `<p>${addressOf(input.company)} <a href="tel:${input.company.switchboard.e164}">Call us</a></p>`,
    contact: `<p><a href="tel:${input.company.switchboard.e164}">${national(input.company.switchboard, input.company.place)}</a> <a href="mailto:${mailOf(input.company)}?subject=Hello">Write</a></p>${lookAlikes(input)}`,
    numbers: [input.company.switchboard],
    emails: [mailOf(input.company)],
  }),
  // Structured data.
  (input) => ({
    head: `<script type="application/ld+json">${JSON.stringify({
      '@context': 'https://schema.org',
      '@type': 'LodgingBusiness',
      name: input.company.name,
      telephone: international(input.company.switchboard),
      faxNumber: international(input.company.switchboard).replace(/\d$/, '9'),
      email: mailOf(input.company),
      openingHours: 'Mo-Su 08:00-18:00',
      address: {
        '@type': 'PostalAddress',
        postalCode: input.company.postalCode,
        addressLocality: input.company.city,
        addressCountry: input.company.place.country,
      },
    })}</script>`,
    home: `<p>${addressOf(input.company)}</p>`,
    contact: `<p>${input.words.open}</p>${lookAlikes(input)}`,
    numbers: [input.company.switchboard],
    emails: [mailOf(input.company)],
  }),
  // A table.
  (input) => ({
    home: `<p>${addressOf(input.company)}</p>`,
    contact: `<table><tr><th>${input.words.phone}</th><td>${national(input.company.switchboard, input.company.place, '/')}</td></tr>${
      input.mobile
        ? `<tr><th>${input.words.mobile}</th><td>${national(input.mobile, input.company.place)}</td></tr>`
        : ''
    }<tr><th>Fax</th><td>${national(input.company.switchboard, input.company.place).replace(/\d$/, '9')}</td></tr></table>${lookAlikes(input)}`,
    numbers: [input.company.switchboard, ...mobileOf(input.mobile)],
    emails: [],
  }),
  // Split by mark-up.
  (input) => {
    const whole = national(input.company.switchboard, input.company.place)
    return {
      home: `<p>${addressOf(input.company)}</p>`,
      contact: `<p><b>${input.words.phone}</b> <span>${whole.slice(0, 4)}</span><span>${whole.slice(4, 7)}</span><em>${whole.slice(7)}</em></p><p>hello (at) ${input.company.domain.replace('.', ' (dot) ')}</p>${lookAlikes(input)}`,
      numbers: [input.company.switchboard],
      emails: [mailOf(input.company)],
    }
  },
  // The caption of a picture.
  (input) => ({
    home: `<figure><img src="/terrace.jpg" alt="Terrace"><figcaption>Our terrace · ☎ ${national(input.company.switchboard, input.company.place, '-')}</figcaption></figure><p>${addressOf(input.company)}</p>`,
    contact: lookAlikes(input),
    numbers: [input.company.switchboard],
    emails: [],
  }),
  // Microdata.
  (input) => ({
    home: `<div itemscope itemtype="https://schema.org/CafeOrCoffeeShop"><span itemprop="name">${input.company.name}</span> <span itemprop="telephone">${international(input.company.switchboard)}</span> <span itemprop="addressCountry">${input.company.place.country}</span></div>`,
    contact: `<p><a href="mailto:${mailOf(input.company)}">${mailOf(input.company)}</a></p>${lookAlikes(input)}`,
    numbers: [input.company.switchboard],
    emails: [mailOf(input.company)],
  }),
  // From abroad, with the trunk prefix in brackets.
  (input) => {
    const { code, trunk } = input.company.place
    const own = input.company.switchboard.e164.slice(code.length + 1)
    return {
      home: `<p>${addressOf(input.company)}</p>`,
      contact: `<p>${input.words.phone} +${code} ${trunk === '' ? '' : `(${trunk})`}${own.slice(0, 3)} ${own.slice(3)}</p>${
        input.mobile ? `<p>${input.words.mobile} ${national(input.mobile, input.company.place)}</p>` : ''
      }${lookAlikes(input)}`,
      numbers: [input.company.switchboard, ...mobileOf(input.mobile)],
      emails: [],
    }
  },
]
