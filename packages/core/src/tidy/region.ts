import { iso31662 } from 'iso-3166'
import { remember } from '../remember'
import { fold } from '../table'
import { SHORT_REGIONS } from './regionsShort'

let names: Map<string, string> | null = null

/** Names and codes of all subdivisions (ISO 3166-2), by country and folded name. Made when the first is asked for. */
function known(): Map<string, string> {
  if (names) return names
  names = new Map()
  for (const { code, name } of iso31662) {
    const country = code.slice(0, 2)
    names.set(`${country}/${code.slice(3).toLowerCase()}`, code)
    for (const part of [name, name.replace(/\s*[([].*$/, '')]) {
      const key = `${country}/${fold(part)}`
      if (!names.has(key)) names.set(key, code)
    }
  }
  return names
}

const codeOf = remember((key: string): string | null => {
  const country = key.slice(0, 2)
  const text = key.slice(3)
  const full = /^([a-z]{2})-([a-z\d]{1,3})$/.exec(fold(text))
  if (full?.[1]?.toUpperCase() === country) return known().get(`${country}/${full[2]}`) ?? null
  const name = fold(text).replace(/\.$/, '')
  return known().get(`${country}/${name}`) ?? shortOf(country, name)
})

/** Full stops part words or end them: `n.y.`, `bad.-württ.`, `w. va.` are looked for without. */
function shortOf(country: string, name: string): string | null {
  const bare = name.replace(/\./g, ' ').replace(/\s+/g, ' ').replace(/ ?- ?/g, '-').trim()
  const joined = bare.replace(/ /g, '')
  const short = SHORT_REGIONS[country]
  // `N.Y.` is the code with full stops.
  const code = known().get(`${country}/${joined}`)
  if (code !== undefined && joined.length <= 3 && name.includes('.')) return code
  const found = short && Object.hasOwn(short, bare) ? short[bare] : undefined
  return found === undefined ? (known().get(`${country}/${bare}`) ?? null) : `${country}-${found}`
}

/** Code of a subdivision by ISO 3166-2, such as `US-CA`; null where the country has none of that name. */
export const readRegion = (text: string, country: string): string | null =>
  country === '' || text.trim() === '' || text.length > 80 ? null : codeOf(`${country}/${text.trim()}`)
