import { titleBefore } from './titles'

export interface PersonName {
  readonly given: string
  readonly family: string
}

const PARTICLES = new Set([
  'van',
  'von',
  'de',
  'der',
  'den',
  'del',
  'della',
  'di',
  'da',
  'du',
  'la',
  'le',
  'ten',
  'ter',
  'zu',
  'zum',
  'af',
  'al',
  'el',
  'bin',
  'ibn',
  'dos',
  'das',
  'mac',
  'st',
  'st.',
])
/** A full name in two parts: `Oldershaw, Maren` the other way round, particles with the family name. */
export function splitName(full: string): PersonName {
  const spaced = isSingleSpaced(full) ? full : full.replace(/\s+/g, ' ').trim()
  const name = spaced.slice(titleBefore(spaced)?.length ?? 0)
  const comma = name.includes(',') ? /^([^,]+),\s*([^,]+)$/.exec(name) : null
  if (comma) return { given: comma[2]?.trim() ?? '', family: comma[1]?.trim() ?? '' }
  let space = name.lastIndexOf(' ')
  if (space === -1) return { given: '', family: name }
  // Particles stand with the family name, but one word at least is the given name.
  for (let before = name.lastIndexOf(' ', space - 1); before > 0; before = name.lastIndexOf(' ', space - 1)) {
    if (!PARTICLES.has(name.slice(before + 1, space).toLowerCase())) break
    space = before
  }
  return { given: name.slice(0, space), family: name.slice(space + 1) }
}

/** No white space but single spaces between words. */
const isSingleSpaced = (text: string): boolean => !/\s\s|[^\S ]|^ | $/.test(text)

/** Full name as it is shown. */
export const joinName = ({ given, family }: PersonName): string => `${given} ${family}`.trim()
