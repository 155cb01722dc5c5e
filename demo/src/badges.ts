import { createRandom, type Random, type World, type WorldPerson } from '@upper-field/standins/world'
import { type CellTruth, writeCell } from './faults'
import type { DemoTable, RowTruth } from './table'

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

/** Badge scans of a fair, with every fault of the phone table and people scanned twice. */
export function badgeTable(world: World, { rows, seed = 'fair badges' }: { rows: number; seed?: string }): DemoTable {
  const random = createRandom(`${world.seed}|${seed}`)
  const lines: string[][] = []
  const truth: RowTruth[] = []
  const first = new Map<number, RowTruth>()
  const known: number[] = []
  for (let i = 0; i < rows; i++) {
    const again = i > 20 && random.chance(0.09)
    const person = again
      ? (world.people[random.pick(known)] as WorldPerson)
      : (world.people[i % world.people.length] as WorldPerson)
    const isKnown = first.has(person.id)
    const phones = [officeCell(random, person), mobileCell(random, person, isKnown)]
    const email = emailOf(random, person, isKnown)
    const row = i + 2
    lines.push([
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
    if (!before) {
      first.set(person.id, one)
      known.push(person.id)
    }
  }
  return { headings: HEADINGS, rows: lines, truth }
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

/** Now and then two letters of the domain are changed round. */
const mistyped = (random: Random, email: string): string =>
  random.chance(0.1) ? email.replace(/@(.)(.)(.)/, '@$1$3$2') : email

function emailOf(random: Random, person: WorldPerson, isKnown: boolean): string {
  if (isKnown) return person.workEmail
  if (random.chance(0.18)) return ''
  if (random.chance(0.1)) return `info@${person.company.domain}`
  const email = random.chance(0.2) ? mistyped(random, person.personalEmail) : person.workEmail
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
