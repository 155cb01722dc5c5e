import { remember } from '../remember'

const PARTICLES = new Set(
  'van von de der den del della di da du la le ten ter zu zum af al el bin ibn dos das y e und'.split(' '),
)
const TITLES =
  /^(?:mr|mrs|ms|miss|mx|dr|prof|professor|sir|dame|lord|lady|rev|herr|frau|hr|mme|mlle|sr|sra|srta|sig|sig\.ra|dott|ing|dhr|mevr|dipl\.-ing|mag)\.?\s+(?=\S)/i
const CREDENTIAL = new Set(
  `phd md mba msc bsc ba ma llb llm cpa fca aca acca cfa pmp mrics frics riba rn esq obe mbe cbe dphil bed meng beng mph dds jd dipl mcips frsa fcim mcim bcom hons`.split(
    ' ',
  ),
)
// Short ones are words or names too, unless they stand in capitals.
const SHORT = new Set(['ma', 'ba', 'md', 'rn', 'jd', 'bed', 'aca', 'hons', 'dipl'])
const DECORATION = /(?:\p{Extended_Pictographic}|\p{Emoji_Modifier}|\p{So}|\u200d|\ufe0f|\u20e3|[™®★☆✓✔•·|])+/gu
const PRONOUNS = /\s*[([](?:he|she|they|il|elle|er|sie)(?:\s*\/\s*\w+){1,2}[)\]]/gi
/** Two or more words of plain letters, each with a capital in front: nothing to mend. */
const PLAIN = /^[A-Z][a-z]{2,}(?: [A-Z][a-z]+)+$/

export interface NameParts {
  readonly name: string
  readonly title: string
  readonly credentials: string
}

/** Letters, single spaces and the signs of names, with a letter at both ends: nothing that could be an ornament. */
const BARE = /^[\p{L}](?:[\p{L}\p{M}.,'’-]| (?! ))*[\p{L}\p{M}.]$/u

/** Emoji, pronouns in brackets and other ornaments taken out, spaces made single. */
export const withoutDecorations = (name: string): string => (BARE.test(name) ? name : stripped(name))

const stripped = (name: string): string =>
  name
    .replace(PRONOUNS, '')
    .replace(DECORATION, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s"'“”«»]+|[\s"'“”«»,]+$/g, '')

/** True for names in which nothing can be mended: most are. */
export const isPlainName = (name: string): boolean => PLAIN.test(name) && !TITLES.test(name) && !endsInCredential(name)

function endsInCredential(name: string): boolean {
  const last = name.slice(Math.max(name.lastIndexOf(' '), name.lastIndexOf(',')) + 1)
  return last.length <= 6 && isCredential(last)
}

function isCredential(word: string): boolean {
  const bare = word.replace(/\./g, '')
  const key = bare.toLowerCase()
  return CREDENTIAL.has(key) && (!SHORT.has(key) || bare === bare.toUpperCase())
}

/** Titles before a name and credentials behind it, apart from the name itself. */
export function takeNameApart(full: string): NameParts {
  if (!TITLES.test(full) && !endsInCredential(full)) return { name: full, title: '', credentials: '' }
  let name = full
  const titles: string[] = []
  for (let found = TITLES.exec(name); found; found = TITLES.exec(name)) {
    titles.push(found[0].trim())
    name = name.slice(found[0].length)
  }
  const credentials: string[] = []
  for (;;) {
    const match = /^(.*?\S)(\s*,\s*|\s+)([\p{L}.]{2,6})$/u.exec(name)
    if (!match?.[1] || !match[2] || !match[3] || !isCredential(match[3])) break
    // Behind a comma it is told apart; behind a space only where a name of two words is left.
    if (!match[2].includes(',') && !/\S\s+\S|,/.test(match[1])) break
    credentials.unshift(match[3])
    name = match[1].replace(/,$/, '')
  }
  return { name, title: titles.join(' '), credentials: credentials.join(', ') }
}

/** `Oldershaw, Maren` the other way round; anything else as it stands. */
export function inSpokenOrder(name: string): string {
  if (!name.includes(',')) return name
  const match = /^([^,]+),\s*([^,]+)$/.exec(name)
  return match ? `${match[2]?.trim()} ${match[1]?.trim()}` : name
}

/** A small letter and, somewhere, a capital: as most names stand. */
const MIXED = /[A-Z].*[a-z]|[a-z].*[A-Z]/

/** A name written all in capitals, or all in small letters, with the capitals it should have. */
export function mendNameCase(name: string): string {
  if (MIXED.test(name)) return name
  const isUpper = name === name.toUpperCase()
  if (!isUpper && name !== name.toLowerCase()) return name
  if (name.toUpperCase() === name.toLowerCase()) return name
  const words = name.split(' ')
  // Two capitals alone are initials, and no more is known of them.
  if (isUpper && words.every((word) => word.length <= 2)) return name
  return words.map((word, i) => wordCase(word, i > 0 && i < words.length - 1)).join(' ')
}

const wordCase = (word: string, isInside: boolean): string => {
  const lower = word.toLowerCase()
  if (isInside && PARTICLES.has(lower)) return lower
  return casedWord(lower)
}

const casedWord = remember((lower: string): string => {
  if (/^(?:ii|iii|iv)$/.test(lower)) return lower.toUpperCase()
  return lower
    .replace(/(^|[-'’.])(\p{L})/gu, (_, before: string, letter: string) => before + letter.toUpperCase())
    .replace(/(^|-)Mc(\p{L})/gu, (_, before: string, letter: string) => `${before}Mc${letter.toUpperCase()}`)
    .replace(
      /(^|-)Mac([bdfglmnpqrst])(?=\p{L}{3})/gu,
      (_, before: string, letter: string) => `${before}Mac${letter.toUpperCase()}`,
    )
    .replace(/^(\p{Lu}\p{L}{2,})(['’])S$/u, '$1$2s')
}, 50_000)
