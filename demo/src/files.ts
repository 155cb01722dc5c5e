import { createRandom, type Random, type World, type WorldPerson } from '@upper-field/standins/world'
import { type CellTruth, writeCell } from './faults'

/** What one row of a demo file truly is. */
export interface RowTruth {
  /** Row number in the file, from 1, headings counted. */
  readonly row: number
  readonly person: number
  readonly phones: readonly CellTruth[]
  /** Row of the same person that stands before this one and shares a number or personal e-mail as written. */
  readonly duplicateOf: number | null
}

export interface DemoFile {
  readonly name: string
  readonly bytes: Uint8Array
  readonly truth: readonly RowTruth[]
}

const HEADINGS = [
  'Attendee',
  'Company',
  'Position',
  'Office phone',
  'Mobile',
  'E-mail',
  'Town',
  'Postcode',
  'Country',
  'Profile',
  'Stand',
]

/** Badge scans of a fair: UTF-8 with commas, with every fault of the phone table and people scanned twice. */
export function fairBadges(world: World, { rows, seed = 'fair badges' }: { rows: number; seed?: string }): DemoFile {
  const random = createRandom(`${world.seed}|${seed}`)
  const writer = createWriter(',')
  writer.line(HEADINGS)
  const truth: RowTruth[] = []
  const first = new Map<number, RowTruth>()
  for (let i = 0; i < rows; i++) {
    const again = i > 20 && random.chance(0.09)
    const person = again ? pickKnown(random, world, first) : (world.people[i % world.people.length] as WorldPerson)
    const isKnown = first.has(person.id)
    const phones = [officeCell(random, person), mobileCell(random, person, isKnown)]
    const email = emailOf(random, person, isKnown)
    const row = i + 2
    writer.line([
      nameOf(random, person),
      companyOf(random, person),
      person.title,
      ...phones.map(({ cell }) => cell),
      email,
      person.company.city,
      person.company.postalCode,
      random.chance(0.9) ? random.pick(person.company.place.spellings) : person.company.place.country,
      profileOf(random, person),
      `Hall ${1 + random.below(6)}`,
    ])
    const before = first.get(person.id)
    const one: RowTruth = { row, person: person.id, phones, duplicateOf: before ? before.row : null }
    truth.push(one)
    if (!before) first.set(person.id, one)
  }
  return { name: 'fair-badges.csv', bytes: new TextEncoder().encode(writer.text()), truth }
}

/** Quotation requests from a web site: Windows-1252 with semicolons, some of the same people, personal e-mails. */
export function quotationRequests(world: World, { rows }: { rows: number }): DemoFile {
  const random = createRandom(`${world.seed}|quotations`)
  const writer = createWriter(';')
  writer.line(['Vorname', 'Nachname', 'Telefon', 'E-Mail', 'PLZ', 'Ort', 'Land', 'Wunsch'])
  const truth: RowTruth[] = []
  for (let i = 0; i < rows; i++) {
    const person = random.pick(world.people)
    const phone = {
      fault: 'as it should be',
      cell: person.mobile.e164,
      verdict: 'clean' as const,
      e164s: [person.mobile.e164],
    }
    writer.line([
      person.given,
      person.family,
      phone.cell,
      person.personalEmail,
      person.company.postalCode,
      person.company.city,
      random.pick(person.company.place.spellings),
      random.pick(['Markise 4 m', 'Sonnensegel; weiß', 'Store banne "Été"', 'Shade sail, 5 × 3 m']),
    ])
    truth.push({ row: i + 2, person: person.id, phones: [phone], duplicateOf: null })
  }
  return { name: 'quotation-requests.csv', bytes: windows1252(writer.text()), truth }
}

function pickKnown(random: Random, world: World, known: ReadonlyMap<number, RowTruth>): WorldPerson {
  const id = random.pick([...known.keys()])
  return world.people[id] as WorldPerson
}

/** Half of the people give their own desk, some the switchboard that their colleagues give too. */
function officeCell(random: Random, person: WorldPerson): CellTruth {
  if (random.chance(0.3)) return { fault: 'nothing', cell: '', verdict: 'empty', e164s: [] }
  return writeCell({ number: random.chance(0.25) ? person.company.switchboard : person.desk, person, random })
}

function mobileCell(random: Random, person: WorldPerson, isKnown: boolean): CellTruth {
  if (!isKnown && random.chance(0.42)) return { fault: 'nothing', cell: '', verdict: 'empty', e164s: [] }
  return writeCell({ number: person.mobile, person, random })
}

function emailOf(random: Random, person: WorldPerson, isKnown: boolean): string {
  if (isKnown) return person.workEmail
  if (random.chance(0.18)) return ''
  if (random.chance(0.1)) return `info@${person.company.domain}`
  const email = random.chance(0.2) ? person.personalEmail : person.workEmail
  return random.chance(0.1) ? `  ${email.toUpperCase()} ` : email
}

function nameOf(random: Random, { given, family }: WorldPerson): string {
  const dice = random.next()
  if (dice < 0.12) return `${family}, ${given}`
  if (dice < 0.18) return `${given} ${family}`.toUpperCase()
  if (dice < 0.21) return `${given[0]}. ${family}`
  return `${given} ${family}`
}

const companyOf = (random: Random, { company }: WorldPerson): string =>
  random.chance(0.4) ? `${company.name} ${company.legalForm}` : company.name

function profileOf(random: Random, person: WorldPerson): string {
  if (random.chance(0.45)) return ''
  return random.chance(0.2) ? `https://www.${person.profile}?utm_source=badge` : `https://${person.profile}`
}

function createWriter(delimiter: string) {
  const lines: string[] = []
  const cell = (value: string) =>
    new RegExp(`[${delimiter}"\\r\\n]`).test(value) ? `"${value.replaceAll('"', '""')}"` : value
  return {
    line: (cells: readonly string[]) => void lines.push(cells.map(cell).join(delimiter)),
    text: () => `${lines.join('\r\n')}\r\n`,
  }
}

/** Only letters that Windows-1252 has in common with Latin-1 stand in the files. */
function windows1252(text: string): Uint8Array {
  return Uint8Array.from(text, (char) => {
    const code = char.charCodeAt(0)
    return code < 256 ? code : 0x3f
  })
}
