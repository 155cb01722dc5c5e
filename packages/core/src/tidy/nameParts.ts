import { percentDecoded } from '../percent'
import { namesTrade } from './companyInName'
import { isCredential, isSuffix } from './credentials'
import { titleBefore, titleBehind } from './titles'

const DECORATION = /(?:\p{Extended_Pictographic}|\p{Emoji_Modifier}|\p{So}|\u200d|\ufe0f|\u20e3|[™®★☆✓✔•·|*~^=<>_#])+/gu
const PRONOUNS = /\s*[([](?:he|she|they|il|elle|er|sie)(?:\s*\/\s*\w+){1,2}[)\]]/gi
export interface NameParts {
  readonly name: string
  readonly title: string
  readonly credentials: string
}

/** Letters drawn as mathematical signs, in full width or in circles. */
const FANCY = /[\u{1d400}-\u{1d7ff}\uff21-\uff5a\u24b6-\u24e9\u{1f130}-\u{1f189}]/u

/** Letters, single spaces and the signs of names, with a letter at both ends: nothing that could be an ornament. */
const BARE = /^[\p{L}](?:[\p{L}\p{M}.,'’-]| (?! ))*[\p{L}\p{M}.]$/u

/** Emoji, pronouns in brackets and other ornaments taken out, spaces made single. */
export const withoutDecorations = (name: string): string => {
  if (isAccountName(name)) return name.replaceAll('.', ' ')
  return isBare(name) ? name : plain(FANCY.test(name) ? name.normalize('NFKC') : name)
}

/** Words with full stops between them and no space: the name of an account, such as `anna.krug`. */
const isAccountName = (name: string): boolean =>
  name.includes('.') && !name.includes(' ') && /^\p{L}{2,}(?:\.\p{L}{2,})+$/u.test(name)

const plain = (name: string): string => (BARE.test(name) ? name : stripped(percentDecoded(name) ?? name))

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
  isTwoPlainWords(name) && titleBefore(name) === null && !endsInCredential(name) && !namesTrade(name)

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
  return last.length <= 9 && isCredential(last)
}

/** Titles before a name and credentials behind it, apart from the name itself. */
export function takeNameApart(full: string): NameParts {
  const behind = titleBehind(full)
  if (behind !== null) return { name: full.slice(0, -behind.length).trim(), title: behind, credentials: '' }
  if (titleBefore(full) === null && !endsInCredential(full)) return { name: full, title: '', credentials: '' }
  let name = full
  const titles: string[] = []
  for (let found = titleBefore(name); found !== null; found = titleBefore(name)) {
    titles.push(found.trim())
    name = name.slice(found.length)
  }
  const credentials: string[] = []
  for (;;) {
    const match = /^(.*?\S)(\s*,\s*|\s+)(\(?[\p{L}.-]{2,10}\)?)$/u.exec(name)
    if (!match?.[1] || !match[2] || !match[3] || !isCredential(match[3])) break
    // Behind a comma it is told apart; behind a space only where a name of two words is left.
    if (!match[2].includes(',') && !/\S\s+\S|,/.test(match[1])) break
    credentials.unshift(match[3])
    name = match[1].replace(/,$/, '')
  }
  return { name, title: titles.join(' '), credentials: credentials.join(', ') }
}

/**
 * `Oldershaw, Maren` the other way round, a suffix such as `Jr.` behind the surname; anything else as it stands.
 */
export function inSpokenOrder(name: string): string {
  if (!name.includes(',')) return name
  const parts = name.split(',').map((part) => part.trim())
  const suffix = parts.length > 1 ? parts.findIndex((part, i) => i > 0 && isSuffix(part)) : -1
  const [family = '', given = '', ...more] = parts.filter((_, i) => i !== suffix)
  if (more.length > 0 || family === '') return name
  return [given, family, suffix === -1 ? '' : (parts[suffix] ?? '')].filter(Boolean).join(' ')
}
