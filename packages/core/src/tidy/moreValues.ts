import { readProfile } from './web'

/** What is known of a contact beyond its plain values: cells of its own columns by their key, and these, with an `@`. */
export type MoreValues = Readonly<Record<string, string>>

export const MORE_KEYS = {
  gender: '@gender',
  'device-id': '@device',
  value: '@value',
  industry: '@industry',
  'company-page': '@page',
} as const
export type MoreField = keyof typeof MORE_KEYS

const LONGEST = 300

/** Words for a gender, folded: the first letter is not enough, since languages share them. */
const FEMALE =
  /^(?:f|female|w|weiblich|frau|femme|féminin|mujer|femenino|femenina|donna|femmina|vrouw|feminino|woman|ms|mrs)$/
const MALE = /^(?:m|male|männlich|mann|homme|masculin|hombre|masculino|uomo|maschio|man|mr|herr)$/

/** `female`, `male`, `other`; empty where nothing can be read. */
export function readGender(text: string): string {
  const word = text.trim().toLowerCase()
  if (word === '') return ''
  if (FEMALE.test(word)) return 'female'
  if (MALE.test(word)) return 'male'
  return /^(?:x|d|o|other|divers|diverse|non-binary|nonbinary|autre|otro|altro|anders)$/.test(word) ? 'other' : ''
}

/** An advertising id as its 32 hexadecimal digits in groups (RFC 9562), small; one of zeros is switched off, and none. */
export function readDeviceId(text: string): string {
  const digits = text.trim().toLowerCase().replace(/[{}-]/g, '')
  if (!/^[0-9a-f]{32}$/.test(digits) || /^0+$/.test(digits)) return ''
  return digits.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

/** An amount as a plain decimal: `€ 1.234,50` is `1234.50`. Of one separator with three digits behind, thousands are meant. */
export function readAmount(text: string): string {
  const bare = text.replace(/[^\d.,-]/g, '')
  const match = /^-?\d{1,3}(?:[.,]?\d{3})*(?:[.,]\d{1,2})?$|^-?\d+(?:[.,]\d+)?$/.exec(bare)
  if (!match || bare === '') return ''
  const last = Math.max(bare.lastIndexOf('.'), bare.lastIndexOf(','))
  if (last === -1) return bare
  const behind = bare.length - last - 1
  const isThousands = behind === 3 && bare.replace(/[^.,]/g, '').length === 1
  const whole = (isThousands ? bare : bare.slice(0, last)).replace(/[.,]/g, '')
  return isThousands ? whole : `${whole}.${bare.slice(last + 1)}`
}

const READERS: Readonly<Record<MoreField, (text: string) => string>> = {
  gender: readGender,
  'device-id': readDeviceId,
  value: readAmount,
  industry: (text) => text.trim().replace(/\s+/g, ' '),
  'company-page': (text) => readProfile(text) ?? '',
}

/** A column may be called `constructor`, which every object seems to know already. */
function addFirst(more: Record<string, string>, key: string, value: string): void {
  if (!Object.hasOwn(more, key)) more[key] = value
}

/** Puts a cell of one of these fields among the others; one that cannot be read is left out. */
export function addMore(more: Record<string, string>, field: MoreField, cell: string): void {
  const value = READERS[field](cell).slice(0, LONGEST)
  if (value !== '') addFirst(more, MORE_KEYS[field], value)
}

/** Puts a cell of a column that became no field among the others, by the key of that column. */
export function addColumn(more: Record<string, string>, key: string, cell: string): void {
  if (key !== '') addFirst(more, key, cell.slice(0, LONGEST))
}

export const isMoreField = (field: string): field is MoreField => Object.hasOwn(MORE_KEYS, field)

/** What several rows of one contact know: the first that knows something of a column tells it. */
export function mergeMore(all: readonly MoreValues[]): MoreValues {
  if (all.length === 1) return all[0] ?? {}
  const merged: Record<string, string> = {}
  for (const more of all) for (const [key, value] of Object.entries(more)) addFirst(merged, key, value)
  return merged
}
