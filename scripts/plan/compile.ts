import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { type Automaton, compile } from './automaton'

// Compiles the numbering plan of the reference package into automata: one for each calling code, over the patterns of
// all its regions and line types. Run it after every change of the package: npx tsx scripts/plan/compile.ts
const require = createRequire(import.meta.url)
const path = require.resolve('google-libphonenumber')
const { version } = require('google-libphonenumber/package.json') as { version: string }

type Desc = readonly [unknown, unknown, pattern?: string, ...rest: unknown[]]
type Metadata = readonly unknown[]

/** Positions in the arrays of the package: field numbers of its protocol buffer. */
const GENERAL = 1
/** Line types in the order in which the reference asks for them; the last two decide together. */
const TYPES = [5, 4, 6, 8, 7, 21, 25, 28, 2, 3] as const
const LEADING_DIGITS = 23
const NATIONAL_PREFIX = 12
const FORMATS = 19
const FORMATS_ABROAD = 20
/** Longest national number that a region may be told by. */
const LONGEST = 17

const source = readFileSync(path, 'utf8')
const literal = (name: string): string => {
  const start = source.indexOf(`i18n.phonenumbers.metadata.${name}=`)
  return source.slice(source.indexOf('{', start), source.indexOf('};', start) + 1)
}
const evaluate = <T>(text: string): T => new Function(`return ${text}`)() as T
const regionsOf = evaluate<Record<string, string[]>>(literal('countryCodeToRegionCodeMap'))
const metadataOf = evaluate<Record<string, Metadata>>(literal('countryToMetadata'))

// State 0 is where no number goes on.
const states: number[] = Array.from({ length: 10 }, () => 0)
const accepts: number[] = [0]
const acceptIds = new Map<string, number>([['', 0]])
const acceptList: (readonly [region: number, type: number, general: readonly number[]])[] = [[-1, -1, []]]

const codes = Object.entries(regionsOf).map(([code, regions]) => {
  const metadata = regions.map((region) => metadataOf[region === '001' ? code : region] as Metadata)
  const patterns = metadata.flatMap((one) => [
    ...[GENERAL, ...TYPES].map((field) => patternIn(one, field)),
    one[LEADING_DIGITS] ? `(?:${one[LEADING_DIGITS]})\\d{0,${LONGEST}}` : null,
  ])
  const usable = patterns.flatMap((pattern, i) => (pattern === null ? [] : [{ pattern, i }]))
  const automaton = compile(usable.map(({ pattern }) => pattern))
  const start = append(automaton, (ends) =>
    judge(
      ends.map((end) => usable[end]?.i ?? 0),
      metadata,
    ),
  )
  return {
    code: Number(code),
    start,
    regions,
    main: lengthsOf(metadata[0] as Metadata),
    trunk: ((metadata[0] as Metadata)[NATIONAL_PREFIX] as string | undefined) ?? '',
    formats: formatsOf(metadata[0] as Metadata, FORMATS),
    formatsAbroad: formatsOf(metadata[0] as Metadata, FORMATS_ABROAD),
  }
})

const regions = Object.fromEntries(
  Object.entries(metadataOf).map(([region, one]) => [
    // Calling codes of no country have metadata of their own.
    /^\d+$/.test(region) ? `001/${region}` : region,
    {
      code: one[10] as number,
      idd: (one[11] as string | undefined) ?? null,
      usualIdd: (one[17] as string | undefined) ?? null,
      prefix: (one[15] as string | undefined) ?? null,
      transform: (one[16] as string | undefined) ?? null,
      lengths: lengthsOf(one),
    },
  ]),
)

function patternIn(metadata: Metadata, field: number): string | null {
  const desc = metadata[field] as Desc | undefined
  const pattern = desc?.[2]
  if (!pattern) return null
  // A type without lengths of its own has those of the general description.
  const own = desc?.[9] as number[] | undefined
  if (own?.[0] === -1) return null
  return pattern.replace(/\s/g, '')
}

/** Lengths that a desc allows; a type that names none allows those of the general one. */
function lengthsIn(metadata: Metadata, field: number): readonly number[] | null {
  const own = (metadata[field] as Desc | undefined)?.[9] as number[] | undefined
  return own && own.length > 0 ? own : null
}

/** How a country writes its numbers: pattern, form, leading digits, and the form of the first group at home. */
function formatsOf(metadata: Metadata, field: number): readonly (readonly [string, string, string, string])[] {
  const formats = (metadata[field] as Metadata[] | undefined) ?? []
  return formats.map((format) => {
    const leading = (format[3] as string[] | undefined) ?? []
    return [
      format[1] as string,
      (format[2] as string | undefined) ?? '',
      leading.at(-1) ?? '',
      (format[4] as string | undefined) ?? '',
    ]
  })
}

function lengthsOf(metadata: Metadata): { readonly possible: readonly number[]; readonly local: readonly number[] } {
  const general = metadata[GENERAL] as Desc
  return { possible: (general[9] as number[] | undefined) ?? [], local: (general[10] as number[] | undefined) ?? [] }
}

interface Judged {
  readonly region: number
  readonly type: number
  readonly general: readonly number[]
}

/** What the reference makes of a number that these patterns match: lengths are looked at when a state is known. */
function judge(ends: readonly number[], metadata: readonly Metadata[]): (length: number) => Judged {
  const width = TYPES.length + 2
  const matched = new Set(ends)
  return (length) => {
    const fits = (region: number, place: number): boolean => {
      if (!matched.has(region * width + place)) return false
      const field = place === 0 ? GENERAL : (TYPES[place - 1] ?? GENERAL)
      const lengths = lengthsIn(metadata[region] as Metadata, field)
      return lengths === null || lengths.includes(length)
    }
    const typeOf = (region: number): number => {
      if (!fits(region, 0)) return -1
      for (let type = 0; type < 8; type++) if (fits(region, type + 1)) return type
      const isFixed = fits(region, 9)
      const isMobile = fits(region, 10)
      const isSame = Boolean((metadata[region] as Metadata)[18])
      if (isFixed) return isSame || isMobile ? 10 : 8
      return !isSame && isMobile ? 9 : -1
    }
    const general = metadata.flatMap((_, region) => (matched.has(region * width) ? [region] : []))
    // A region with leading digits is told by them alone, whatever its types say.
    const region = metadata.findIndex((one, i) =>
      one[LEADING_DIGITS] ? matched.has(i * width + TYPES.length + 1) : typeOf(i) !== -1,
    )
    const type = region === -1 ? -1 : typeOf(region)
    return { region: type === -1 ? -1 : region, type, general }
  }
}

/** Adds an automaton to the common tables, its states unrolled by length, since lengths decide too. */
function append(
  { next, accepts: ends, start }: Automaton,
  judgeOf: (ends: number[]) => (length: number) => Judged,
): number {
  const judges = ends.map((list) => judgeOf(list === '' ? [] : list.split(',').map(Number)))
  const ids = new Map<string, number>()
  const base = states.length / 10
  const keys: [state: number, length: number][] = []
  const idOf = (state: number, length: number): number => {
    if (state === 0) return 0
    const key = `${state}/${length}`
    const known = ids.get(key)
    if (known !== undefined) return known
    const id = base + keys.length
    ids.set(key, id)
    keys.push([state, length])
    return id
  }
  const first = idOf(start, 0)
  for (let i = 0; i < keys.length; i++) {
    const [state, length] = keys[i] ?? [0, 0]
    for (let digit = 0; digit < 10; digit++)
      states[(base + i) * 10 + digit] = idOf(next[state]?.[digit] ?? 0, length + 1)
    const { region, type, general } = (judges[state] as (length: number) => Judged)(length)
    accepts[base + i] = acceptIdOf(region, type, general)
  }
  return first
}

function acceptIdOf(region: number, type: number, general: readonly number[]): number {
  if (region === -1 && general.length === 0) return 0
  const key = `${region}/${type}/${general.join()}`
  const known = acceptIds.get(key)
  if (known !== undefined) return known
  acceptIds.set(key, acceptList.length)
  return acceptList.push([region, type, general]) - 1
}

if (states.length === 0) throw new Error('no states')
const count = states.length / 10
console.log(`${version}: ${codes.length} calling codes, ${count} states, ${acceptList.length} outcomes`)
const words = new Uint16Array(count * 11)
for (let i = 0; i < count; i++) {
  for (let digit = 0; digit < 10; digit++) words[i * 11 + digit] = states[i * 10 + digit] ?? 0
  words[i * 11 + 10] = accepts[i] ?? 0
}
const table = Buffer.from(words.buffer).toString('base64')
const formats = Object.fromEntries(
  codes.map(({ code, trunk, formats: home, formatsAbroad: abroad }) => [code, { trunk, home, abroad }]),
)
const bareCodes = codes.map(({ trunk: _trunk, formats: _home, formatsAbroad: _abroad, ...one }) => one)
const data = { version, codes: bareCodes, regions, outcomes: acceptList }
writeFileSync(
  new URL('../../packages/core/src/phone/engine/formatData.ts', import.meta.url),
  `// Compiled from google-libphonenumber ${version} by scripts/plan/compile.ts. Do not edit.
/** How numbers are written, by calling code: what is dialled in front at home, forms at home, forms for others. */
export const FORMATS = ${JSON.stringify(formats)}
`,
)
writeFileSync(
  new URL('../../packages/core/src/phone/engine/planData.ts', import.meta.url),
  `// Compiled from google-libphonenumber ${version} by scripts/plan/compile.ts. Do not edit.
/** Everything but the automata. */
export const PLAN = ${JSON.stringify(data)}
/** Eleven 16-bit words a state: ten next states and the outcome there, little-endian, in base64. */
export const STATES =
  '${table}'
`,
)
console.log(
  `${(table.length / 1024).toFixed(0)} kB of automata, ${(JSON.stringify(data).length / 1024).toFixed(0)} kB beside`,
)
