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
const TITLES = /^(?:mr|mrs|ms|miss|mx|dr|prof|herr|frau|hr|fr|mme|mlle|sr|sra|sig|sig\.ra|ing|dipl\.-ing)\.?\s+/i

/** A full name in two parts: `Oldershaw, Maren` the other way round, particles with the family name. */
export function splitName(full: string): PersonName {
  const name = full.replace(/\s+/g, ' ').trim().replace(TITLES, '')
  const comma = /^([^,]+),\s*([^,]+)$/.exec(name)
  if (comma) return { given: comma[2]?.trim() ?? '', family: comma[1]?.trim() ?? '' }
  const words = name.split(' ')
  if (words.length === 1) return { given: '', family: name }
  let start = words.length - 1
  while (start > 1 && PARTICLES.has((words[start - 1] ?? '').toLowerCase())) start--
  return { given: words.slice(0, start).join(' '), family: words.slice(start).join(' ') }
}

/** Full name as it is shown. */
export const joinName = ({ given, family }: PersonName): string => `${given} ${family}`.trim()
