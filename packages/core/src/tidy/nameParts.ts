import { remember } from '../remember'
import { titleBefore } from './titles'

const PARTICLES = new Set(
  'van von de der den del della di da du la le ten ter zu zum af al el bin ibn dos das y e und'.split(' '),
)
const CREDENTIAL = new Set(
  `phd md mba msc bsc ba ma llb llm cpa fca aca acca cfa pmp mrics frics riba rn esq obe mbe cbe dphil bed meng beng mph dds jd dipl mcips frsa fcim mcim bcom hons`.split(
    ' ',
  ),
)
// Short ones are words or names too, unless they stand in capitals.
const SHORT = new Set(['ma', 'ba', 'md', 'rn', 'jd', 'bed', 'aca', 'hons', 'dipl'])
const DECORATION = /(?:\p{Extended_Pictographic}|\p{Emoji_Modifier}|\p{So}|\u200d|\ufe0f|\u20e3|[™®★☆✓✔•·|])+/gu
const PRONOUNS = /\s*[([](?:he|she|they|il|elle|er|sie)(?:\s*\/\s*\w+){1,2}[)\]]/gi
export interface NameParts {
  readonly name: string
  readonly title: string
  readonly credentials: string
}

/** Letters, single spaces and the signs of names, with a letter at both ends: nothing that could be an ornament. */
const BARE = /^[\p{L}](?:[\p{L}\p{M}.,'’-]| (?! ))*[\p{L}\p{M}.]$/u

/** Emoji, pronouns in brackets and other ornaments taken out, spaces made single. */
export const withoutDecorations = (name: string): string => (isBare(name) || BARE.test(name) ? name : stripped(name))

/** The same as `BARE` for names in the letters of western Europe, without a pattern. */
function isBare(name: string): boolean {
  let previous = SPACE
  for (let i = 0; i < name.length; i++) {
    const code = name.charCodeAt(i)
    if (code === SPACE ? previous === SPACE : !isLetter(code) && (i === 0 || !SIGNS.includes(name[i] ?? ' ')))
      return false
    previous = code
  }
  return isLetter(previous) || previous === FULL_STOP
}

const SPACE = 0x20
const FULL_STOP = 0x2e
const SIGNS = ".,'’-"

const isLetter = (code: number): boolean => isCapital(code) || isSmall(code)

const stripped = (name: string): string =>
  name
    .replace(PRONOUNS, '')
    .replace(DECORATION, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s"'“”«»]+|[\s"'“”«»,]+$/g, '')

/** True for names in which nothing can be mended: most are. */
export const isPlainName = (name: string): boolean =>
  isTwoPlainWords(name) && titleBefore(name) === null && !endsInCredential(name)

/** Two words or more, each a capital and small letters of the Latin alphabet behind it, with single spaces between. */
function isTwoPlainWords(name: string): boolean {
  let words = 0
  let letters = 0
  for (let i = 0; i < name.length; i++) {
    const code = name.charCodeAt(i)
    if (code === SPACE) {
      if (letters < 2) return false
      letters = 0
    } else if (letters === 0) {
      if (!isCapital(code)) return false
      words++
      letters = 1
    } else if (isSmall(code)) letters++
    else return false
  }
  return words > 1 && letters > 1
}

/** Letters of ASCII and of Latin-1; the signs for times and divided by stand among the latter. */
const isCapital = (code: number): boolean =>
  (code >= 0x41 && code <= 0x5a) || (code >= 0xc0 && code <= 0xde && code !== 0xd7)
const isSmall = (code: number): boolean =>
  (code >= 0x61 && code <= 0x7a) || (code >= 0xdf && code <= 0xff && code !== 0xf7)

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
  if (titleBefore(full) === null && !endsInCredential(full)) return { name: full, title: '', credentials: '' }
  let name = full
  const titles: string[] = []
  for (let found = titleBefore(name); found !== null; found = titleBefore(name)) {
    titles.push(found.trim())
    name = name.slice(found.length)
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

/** True where a small letter and a capital stand somewhere: as most names do. */
function isMixed(name: string): boolean {
  let hasCapital = false
  let hasSmall = false
  for (let i = 0; i < name.length && !(hasCapital && hasSmall); i++) {
    const code = name.charCodeAt(i)
    hasCapital ||= code >= 0x41 && code <= 0x5a
    hasSmall ||= code >= 0x61 && code <= 0x7a
  }
  return hasCapital && hasSmall
}

/** A name written all in capitals, or all in small letters, with the capitals it should have. */
export function mendNameCase(name: string): string {
  if (isMixed(name)) return name
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
