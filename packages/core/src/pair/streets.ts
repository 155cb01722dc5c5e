import { LEVEL, UNKNOWN } from './fields'
import { fold } from './fold'
import { pairMemo } from './pairMemo'
import { numbersOfForm, type Sealable, sealAll, textPool } from './pool'
import { areAlike } from './similarity'

/** The street addresses of a list. */
export interface Streets extends Sealable {
  /** Number of a street with its house, however it is written. 0 is none. */
  idOf(street: string): number
  hashOf(id: number): number
  /** Position of the level at which two streets stand to each other, or `UNKNOWN`. */
  compare(a: number, b: number): number
}

/** Words for a street and their short forms, folded, that are written or left out as one likes. */
const SHORT: Readonly<Record<string, string>> = {
  street: 'st',
  strasse: 'str',
  road: 'rd',
  lane: 'ln',
  avenue: 'av',
  ave: 'av',
  drive: 'dr',
  square: 'sq',
  place: 'pl',
  platz: 'pl',
  weg: 'w',
  allee: 'al',
  boulevard: 'bd',
  blvd: 'bd',
  rue: 'r',
  via: 'v',
  calle: 'c',
  plaza: 'pl',
  close: 'cl',
  court: 'ct',
  crescent: 'cres',
  gardens: 'gdns',
  terrace: 'ter',
  north: 'n',
  south: 's',
  east: 'e',
  west: 'w',
} // prettier-ignore

const { same, like, other } = LEVEL.street

export function pairStreets(): Streets {
  const pool = textPool()
  const forms = numbersOfForm(formOf, pool)
  const areLike = pairMemo((a, b) => isLike(pool.texts[a] as string, pool.texts[b] as string))
  return {
    idOf: forms.idOf,
    hashOf: pool.hashOf,
    seal: () => sealAll([pool, forms]),
    compare: (a, b) => {
      if (a === 0 || b === 0) return UNKNOWN
      if (a === b) return same
      return areLike(a, b) ? like : other
    },
  }
}

/** `Lindenstraße 5` and `5 Linden Str.` are one text: words in short form, in order of the alphabet. */
function formOf(street: string): string {
  return fold(street)
    .replace(/(\p{L}{3,})(?:strasse|str)\b/gu, '$1 str')
    .split(' ')
    .map((word) => SHORT[word] ?? word)
    .sort()
    .join(' ')
}

/** The same house in a street written with a slip, or the same street where one tells no house. */
function isLike(a: string, b: string): boolean {
  const [house, other] = [a, b].map((street) => /\d+/.exec(street)?.[0] ?? '') as [string, string]
  if (house !== '' && other !== '' && house !== other) return false
  const [name, otherName] = [a, b].map((street) => street.replace(/\d+\w?/g, '').trim()) as [string, string]
  return name === otherName || areAlike(name, otherName)
}
