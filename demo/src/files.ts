import { createRandom, type Random, type World, type WorldPerson } from '@upper-field/standins/world'
import { badgeTable } from './badges'
import { type CellTruth, writeCell } from './faults'
import { asText, type DemoFile, type DemoTable, type RowTruth, utf16, windows1252, workbook } from './table'

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text)

/** Badge scans as plain CSV: for lists of any size. */
export function fairBadges(world: World, options: { rows: number; seed?: string }): DemoFile {
  const table = badgeTable(world, options)
  return { name: 'fair-badges.csv', bytes: utf8(asText(table, ',')), truth: table.truth }
}

const ROWS_ABOVE = 3

/** The fair's badge scans as the organisers send them: a merged title above, three sheets, one of them hidden. */
export function fairWorkbook(world: World, options: { rows: number }): DemoFile {
  const table = badgeTable(world, options)
  const title = ['Outdoor Living Fair 2026 – badge scans, stand of Wrenfold Awnings']
  const scans = [title, ['Exported 18 September 2026, 17:42'], [], table.headings, ...table.rows.map(asNumbers)]
  const stands = [
    ['Hall', 'Stand', 'Scans'],
    ...[1, 2, 3, 4, 5, 6].map((hall) => [`Hall ${hall}`, `${hall}${'ABC'[hall % 3]}12`, 90 + hall * 13]),
  ]
  const bytes = workbook([
    { name: 'Scans', cells: scans, merged: ['A1:K1', 'A2:K2'] },
    { name: 'Stands', cells: stands },
    { name: 'Test scans', cells: [table.headings, ['Test Person', 'Test', '', '0000000000']], isHidden: true },
  ])
  return { name: 'fair-badges.xlsx', bytes, truth: table.truth.map((one) => ({ ...one, row: one.row + ROWS_ABOVE })) }
}

/** Cells of digits become numbers, as a spreadsheet makes them. */
const asNumbers = (cells: readonly string[]): (string | number)[] =>
  cells.map((cell) => (/^[1-9]\d{5,14}$/.test(cell) ? Number(cell) : cell))

/** What a spreadsheet does to a column of numbers, and what a seller hides. */
const HURT = new Set([
  'as it should be',
  'national',
  'notation, digits lost',
  'notation, digits kept',
  'decimal tail',
  'leading apostrophe',
  'leading zero lost',
  'nothing',
  'masked',
]) // prettier-ignore

/** A bought directory of hospitality: Windows-1252 with semicolons, numbers hurt by a spreadsheet, a sum below. */
export function directory(world: World, { rows }: { rows: number }): DemoFile {
  const random = createRandom(`${world.seed}|directory`)
  const truth: RowTruth[] = []
  const first = new Map<number, number>()
  const known: number[] = []
  let pitches = 0
  const cells = Array.from({ length: rows }, (_, i) => {
    const isAgain = i > 30 && random.chance(0.06)
    const person = isAgain ? (world.people[random.pick(known)] as WorldPerson) : random.pick(world.people)
    const phones = [
      writeCell({ number: random.chance(0.5) ? person.company.switchboard : person.desk, person, random }, HURT),
      random.chance(0.45) || isAgain ? writeCell({ number: person.mobile, person, random }, HURT) : NOTHING,
    ]
    const before = first.get(person.id)
    truth.push({ row: i + 2, person: person.id, phones, duplicateOf: before ?? null })
    if (before === undefined) {
      first.set(person.id, i + 2)
      known.push(person.id)
    }
    const size = 4 + random.below(220)
    pitches += size
    return [
      `${person.company.name}${random.chance(0.5) ? ` ${person.company.legalForm}` : ''}`,
      random.pick(['Café', 'Gästehaus', 'Gartencenter', 'Campingplatz', 'Hotel – garni']),
      random.chance(0.75) ? `${person.given} ${person.family}` : '',
      ...phones.map(({ cell }) => cell),
      random.chance(0.6) ? (random.chance(0.5) ? `info@${person.company.domain}` : person.workEmail) : '',
      `${random.pick(['Seeweg', 'Hauptstraße', 'Mill Lane', 'Rue de l’Église', 'Via Roma'])} ${1 + random.below(180)}`,
      person.company.postalCode.replace(/^0+(?=\d{4}$)/, ''),
      person.company.city,
      random.pick(person.company.place.spellings),
      random.chance(0.7) ? `www.${person.company.domain}` : '',
      String(size),
    ]
  })
  const headings = [
    'Betrieb',
    'Kategorie',
    'Ansprechpartner',
    'Telefon',
    'Mobil',
    'E-Mail',
    'Straße',
    'PLZ',
    'Ort',
    'Land',
    'Webseite',
    'Stellplätze',
  ] // prettier-ignore
  const total = ['Summe', '', '', '', '', '', '', '', '', '', '', String(pitches)]
  const bytes = windows1252(asText({ headings, rows: [...cells, total], truth }, ';'))
  return { name: 'hospitality-directory.csv', bytes, truth }
}

const NOTHING: CellTruth = { fault: 'nothing', cell: '', verdict: 'empty', e164s: [] }

/** Quotation requests from the web site: UTF-8, home owners who asked, personal e-mails; one in eight asks twice. */
export function quotationRequests(world: World, { rows }: { rows: number }): DemoFile {
  const random = createRandom(`${world.seed}|quotations`)
  const truth: RowTruth[] = []
  const first = new Map<number, number>()
  const known: number[] = []
  const cells = Array.from({ length: rows }, (_, i) => {
    const isAgain = i > 10 && random.chance(0.12)
    const consumer = isAgain
      ? (world.consumers[random.pick(known)] as World['consumers'][number])
      : random.pick(world.consumers)
    const number = random.chance(0.8) ? consumer.mobile : consumer.home
    const phone: CellTruth = { fault: 'as it should be', cell: number.e164, verdict: 'clean', e164s: [number.e164] }
    const before = first.get(consumer.id)
    truth.push({ row: i + 2, person: consumer.id, phones: [phone], duplicateOf: before ?? null })
    if (before === undefined) {
      first.set(consumer.id, i + 2)
      known.push(consumer.id)
    }
    return [
      dayOf(random),
      consumer.given,
      consumer.family,
      random.chance(0.3) ? consumer.personalEmail.toUpperCase() : consumer.personalEmail,
      phone.cell,
      consumer.postalCode,
      consumer.city,
      consumer.place.country,
      random.pick([
        'Markise 4 m',
        'Sonnensegel, weiß',
        'Store banne "Été"',
        'Shade sail, 5 × 3 m',
        'Zwei Fenster,\nSüdseite',
      ]),
      'yes',
    ]
  })
  const headings = [
    'Requested at',
    'First name',
    'Last name',
    'E-mail',
    'Phone',
    'Postcode',
    'Town',
    'Country',
    'Wish',
    'Consent',
  ] // prettier-ignore
  return { name: 'quotation-requests.csv', bytes: utf8(asText({ headings, rows: cells, truth }, ',')), truth }
}

const dayOf = (random: Random): string =>
  `2026-0${4 + random.below(6)}-${String(1 + random.below(28)).padStart(2, '0')} ${String(7 + random.below(14)).padStart(2, '0')}:${String(random.below(60)).padStart(2, '0')}`

/** Pages of a campsite association, to be harvested: one address a line, no headings. */
export function campsitePages(world: World, { rows }: { rows: number }): DemoFile {
  const lines = world.companies.slice(0, rows).map(({ domain }, i) => `https://sites.${domain}/camp/${i + 1}`)
  return { name: 'campsite-pages.txt', bytes: utf8(`${lines.join('\n')}\n`), truth: [] }
}

/** A profile export: names, titles, companies and profile addresses, no numbers. */
export function profileExport(world: World, { rows }: { rows: number }): DemoFile {
  const random = createRandom(`${world.seed}|profiles`)
  const people = Array.from({ length: rows }, () => random.pick(world.people))
  const headings = [
    'First Name',
    'Last Name',
    'Headline',
    'Current Company',
    'Profile URL',
    'Location',
    'Country',
    'Connected On',
  ] // prettier-ignore
  const cells = people.map((person) => [
    random.chance(0.08) ? `${person.given} 🌿` : person.given,
    random.chance(0.1) ? `${person.family}, MBA` : person.family,
    person.title,
    person.company.name,
    `https://www.${person.profile}${random.chance(0.3) ? '?utm_source=export' : ''}`,
    person.company.city,
    person.company.place.spellings[0] ?? person.company.place.country,
    `${1 + random.below(28)} ${random.pick(['Mar', 'Jun', 'Aug'])} 2026`,
  ])
  const truth = people.map(({ id }, i): RowTruth => ({ row: i + 2, person: id, phones: [], duplicateOf: null }))
  return { name: 'profile-export.csv', bytes: utf8(`\ufeff${asText({ headings, rows: cells, truth }, ',')}`), truth }
}

/** Current customers, to be excluded: "Unicode text" from a spreadsheet. */
export function customers(world: World, { rows }: { rows: number }): DemoFile {
  const random = createRandom(`${world.seed}|customers`)
  const people = Array.from({ length: rows }, () => random.pick(world.people))
  const phones = people.map((person) =>
    writeCell({ number: random.chance(0.5) ? person.mobile : person.desk, person, random }, PLAIN),
  ) // prettier-ignore
  const table: DemoTable = {
    headings: [
      'Customer no.',
      'Customer name',
      'Company',
      'Street',
      'Postcode',
      'City',
      'Country',
      'Phone',
      'E-mail',
      'Last order',
    ],
    rows: people.map((person, i) => [
      `WA-${20_000 + i}`,
      `${person.given} ${person.family}`,
      person.company.name,
      `${random.pick(['Lakeside', 'High Street', 'Bahnhofstraße'])} ${1 + random.below(90)}`,
      person.company.postalCode,
      person.company.city,
      person.company.place.country,
      phones[i]?.cell ?? '',
      person.workEmail,
      `2025-${String(1 + random.below(12)).padStart(2, '0')}-14`,
    ]),
    truth: people.map(({ id }, i) => ({ row: i + 2, person: id, phones: [phones[i] ?? NOTHING], duplicateOf: null })),
  } // prettier-ignore
  return { name: 'customers.txt', bytes: utf16(asText(table, '\t')), truth: table.truth }
}

const PLAIN = new Set(['as it should be', 'national', 'no-break and thin spaces', '00 for plus'])

/** People who said no: JSON from the tool that took their word. */
export function optOuts(world: World, { rows }: { rows: number }): DemoFile {
  const random = createRandom(`${world.seed}|opt-outs`)
  const people = Array.from({ length: rows }, () => random.pick(world.people))
  const entries = people.map((person) => {
    const byPhone = random.chance(0.6)
    return {
      person: { name: `${person.given} ${person.family}`, phone: byPhone ? person.mobile.e164 : null },
      email: byPhone ? null : person.personalEmail,
      said: dayOf(random),
      channel: byPhone ? 'text' : 'e-mail',
    }
  })
  const truth = people.map(({ id }, i): RowTruth => ({ row: i + 1, person: id, phones: [], duplicateOf: null }))
  return { name: 'opt-outs.json', bytes: utf8(JSON.stringify(entries, null, 1)), truth }
}

/** The seven files of the scenario; `rows` is about how many they have together. */
export function scenarioFiles(world: World, { rows = 6000 }: { rows?: number } = {}): DemoFile[] {
  const part = (share: number) => Math.max(10, Math.round(rows * share))
  return [
    fairWorkbook(world, { rows: part(0.135) }),
    directory(world, { rows: part(0.43) }),
    quotationRequests(world, { rows: part(0.15) }),
    campsitePages(world, { rows: Math.min(120, part(0.02)) }),
    profileExport(world, { rows: part(0.15) }),
    customers(world, { rows: part(0.065) }),
    optOuts(world, { rows: part(0.05) }),
  ]
}
