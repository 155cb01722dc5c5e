import ICAL from 'ical.js'
import type { Container } from './container'
import { containerOfItems, type Item, type ItemOptions } from './items'
import { linesOf, textOf } from './lines'
import type { ByteSource } from './source'
import { asVersion3 } from './vcard21'

const LONGEST_CARD = 4 << 20

/** vCard 2.1, 3.0 (RFC 2426) and 4.0 (RFC 6350): one item a card, one column for each kind of telephone and e-mail. */
export const openVcards = (source: ByteSource, options: ItemOptions = {}): Promise<Container> =>
  containerOfItems('vcard', () => cardsOf(source), { ...options, order: inOrder })

async function* cardsOf(source: ByteSource): AsyncGenerator<Item> {
  let lines: string[] = []
  let size = 0
  for await (const line of linesOf(textOf(source))) {
    const isStart = /^BEGIN:VCARD\s*$/i.test(line)
    // A card that is never ended costs itself only.
    if (isStart && lines.some((one) => one.trim() !== '')) yield { status: 'broken', text: lines.join('\n') }
    if (isStart) {
      lines = []
      size = 0
    }
    lines.push(line)
    size += line.length
    if (/^END:VCARD\s*$/i.test(line) || size > LONGEST_CARD) {
      yield itemOf(lines.join('\r\n'))
      lines = []
      size = 0
    }
  }
  if (lines.some((line) => line.trim() !== '')) yield { status: 'broken', text: lines.join('\n') }
}

type Property = readonly [
  name: string,
  parameters: Readonly<Record<string, string | readonly string[]>>,
  type: string,
  ...values: unknown[],
]

function itemOf(text: string): Item {
  try {
    const card = /^VERSION:2\.1/im.test(text) ? asVersion3(text) : text
    const parsed = ICAL.parse(withoutGroups(card)) as unknown as [string, Property[]]
    return { status: 'read', values: valuesOf(parsed[1]) }
  } catch {
    return { status: 'broken', text }
  }
}

/** `item1.TEL` says that a label belongs to it: the group is not needed here. Pictures are not either. */
const withoutGroups = (text: string): string =>
  text
    .replace(/\r\n[ \t]/g, '')
    .replace(/^[A-Za-z0-9-]+\.(?=[A-Za-z-]+[;:])/gm, '')
    .replace(/^(?:PHOTO|LOGO|SOUND|KEY)[;:].*\r\n/gim, '')

function valuesOf(properties: readonly Property[]): ReadonlyMap<string, string> {
  const values = new Map<string, string>()
  const add = (name: string, value: unknown) => {
    const text = textIn(value)
    if (text === '') return
    let free = name
    for (let n = 2; values.has(free); n++) free = `${name} ${n}`
    values.set(free, text)
  }
  for (const [name, parameters, , value, ...more] of properties) {
    switch (name) {
      case 'fn':
        add('Full name', value)
        break
      case 'n':
        addParts(add, value, ['Family name', 'Given name', 'Additional names', 'Prefix', 'Suffix'])
        break
      case 'org':
        add('Company', Array.isArray(value) ? value[0] : value)
        if (Array.isArray(value)) add('Department', value.slice(1).join(', '))
        break
      case 'title':
        add('Job title', value)
        break
      case 'tel':
        add(telephoneColumn(parameters.type), unescaped(String(value)).replace(/^tel:/i, ''))
        break
      case 'email':
        add('E-mail', unescaped(String(value)))
        break
      case 'adr':
        addParts(add, value, ['PO box', 'Address line', 'Street', 'City', 'Region', 'Postal code', 'Country'])
        break
      case 'url':
        add('Web address', value)
        break
      case 'version':
      case 'prodid':
      case 'rev':
        break
      default:
        add(
          name.replace(/^x-/, '').replace(/^\w/, (letter) => letter.toUpperCase()),
          [value, ...more],
        )
    }
  }
  return values
}

/** Signs that a card escapes, in every version (RFC 6350, section 3.4); the parser leaves some values alone. */
const unescaped = (text: string): string => text.replace(/\\([,;:\\])/g, '$1')

function addParts(add: (name: string, value: unknown) => void, value: unknown, names: readonly string[]): void {
  const parts = Array.isArray(value) ? value : String(value ?? '').split(';')
  for (const [i, name] of names.entries()) add(name, parts[i])
}

const textIn = (value: unknown): string =>
  (Array.isArray(value)
    ? value
        .flat(3)
        .filter((one) => one !== undefined && one !== '')
        .join(', ')
    : String(value ?? '')
  ).trim()

const KINDS: readonly (readonly [RegExp, string])[] = [
  [/fax/i, 'Fax'],
  [/cell|mobile|iphone/i, 'Mobile phone'],
  [/work|main/i, 'Work phone'],
  [/home/i, 'Home phone'],
]

function telephoneColumn(type: string | readonly string[] | undefined): string {
  const types = Array.isArray(type) ? type.join(',') : String(type ?? '')
  return KINDS.find(([pattern]) => pattern.test(types))?.[1] ?? 'Phone'
}

const ORDER = [
  'Full name',
  'Given name',
  'Family name',
  'Job title',
  'Company',
  'Department',
  'Mobile phone',
  'Work phone',
  'Home phone',
  'Phone',
  'E-mail',
  'Web address',
  'Street',
  'City',
  'Region',
  'Postal code',
  'Country',
] // prettier-ignore

function inOrder(names: readonly string[]): readonly string[] {
  const rank = (name: string) => {
    const at = ORDER.indexOf(name.replace(/ \d+$/, ''))
    return at === -1 ? ORDER.length : at
  }
  return [...names].sort((a, b) => rank(a) - rank(b) || names.indexOf(a) - names.indexOf(b))
}
