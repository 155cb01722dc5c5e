import { DIGITS, ZERO } from './engine/digits'

/**
 * Ranges set aside for fiction and testing, by calling code, as national digits: a dot is any digit, a star whatever
 * follows. Sources: the drama ranges of the British regulator, the North American plan's 555-0100 to 555-0199 and
 * directory assistance 555-1212, the Australian regulator's numbers for creative works, the ranges the German (notice
 * 148/2021) and French regulators keep for film, the Irish regulator's 020 91 for drama, and the numbers the Swedish
 * regulator keeps for books and films.
 */
const FICTION: Readonly<Record<number, string>> = {
  44: `7700900* 2079460* 1134960* 1144960* 1154960* 1164960* 1174960* 1184960* 1214960* 1314960* 1414960* 1514960*
    1614960* 1914980* 1632960* 2896496* 2920180* 3069990* 8081570* 9098790*`,
  1: '...55501.. ...5551212',
  61: `25550.... 27010.... 35550.... 37010.... 75550.... 77010.... 85550.... 87010.... 491570... 1800160401 180097570. 180097571. 130097570. 130097571.`,
  49: `3023125... 4066969... 6990009... 8999998... 2214710... 17139200.. 176040690.. 15228817386 15228895456
    15254599371 1729925904 1729968532 1729973185 1729973186 1729980752`,
  353: '2091.....',
  46: '31390060. 31390061. 31390062. 31390063. 31390064. 40628040. 40628041. 40628042. 40628043. 40628044. 8465004.. 9803192.. 701740605 70174061. 70174062. 70174063. 70174064. 70174065. 70174066. 70174067. 70174068. 70174069.',
  33: '19900.... 26191.... 35301.... 46571.... 53649.... 63998....',
}

/** Ten next places by digit; what ends here; whether anything may follow. */
interface Place {
  readonly next: (Place | undefined)[]
  isEnd: boolean
  isOpen: boolean
}

const newPlace = (): Place => ({ next: Array.from({ length: 10 }), isEnd: false, isOpen: false })

function treeOf(templates: string): Place {
  const root = newPlace()
  for (const template of templates.split(/\s+/)) addTemplate([root], template)
  return root
}

function addTemplate(places: readonly Place[], template: string): void {
  const [sign] = template
  if (sign === undefined) for (const place of places) place.isEnd = true
  else if (sign === '*') for (const place of places) place.isOpen = true
  else addTemplate([...new Set(places.flatMap((place) => placesBehind(place, sign)))], template.slice(1))
}

/** Where a sign leads; any digit leads to one place, unless some have places of their own. */
function placesBehind(place: Place, sign: string): readonly Place[] {
  const digits = sign === '.' ? [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] : [Number(sign)]
  const fresh = newPlace()
  for (const digit of digits) place.next[digit] ??= fresh
  return digits.map((digit) => place.next[digit] as Place)
}

function endsInTree(tree: Place | undefined, from: number, to: number): boolean {
  let place = tree
  for (let i = from; i < to && place && !place.isOpen; i++) place = place.next[(DIGITS[i] as number) - ZERO]
  return place !== undefined && (place.isOpen || place.isEnd)
}

const trees: (Place | undefined)[] = []
for (const [code, templates] of Object.entries(FICTION)) trees[Number(code)] = treeOf(templates)

const localTree = treeOf('55501.. 5551212')

/** True for a number that is set aside for fiction: its national digits in the buffer. */
export const isFictionNumber = (countryCode: number, from: number, to: number): boolean =>
  endsInTree(trees[countryCode], from, to)

/** Digits a run up or down the keyboard has before it starts over a second time. */
const LONGEST_RUN = 20

/** Behind the first digits of a mobile, so many alike are what a form was given that wanted any number. */
const MOST_ALIKE = 7
const MOST_ZEROS = 6
/** A number has no more digits (E.164), a card has. */
const MOST_OF_NUMBER = 15

/** True for digits nobody was given: one digit repeated, also behind others, or a run up or down the keyboard. At least 5 digits. */
export function isPlaceholderRun(from: number, to: number): boolean {
  if (isRun(from, to)) return true
  return to - from <= MOST_OF_NUMBER && alikeAtEnd(from, to) > (DIGITS[to - 1] === ZERO ? MOST_ZEROS : MOST_ALIKE)
}

/** How many digits at the end are one digit repeated. */
function alikeAtEnd(from: number, to: number): number {
  let at = to - 1
  while (at > from && DIGITS[at - 1] === DIGITS[to - 1]) at--
  return to - at
}

function isRun(from: number, to: number): boolean {
  if (to - from < 5) return false
  const first = DIGITS[from] as number
  const step = ((DIGITS[from + 1] as number) - first + 10) % 10
  if (step !== 0 && step !== 1 && step !== 9) return false
  for (let i = from + 1; i < to; i++)
    if (((DIGITS[i] as number) - (DIGITS[i - 1] as number) + 10) % 10 !== step) return false
  if (step === 0) return true
  const before = step === 1 ? first - ZERO : ZERO + 9 - first
  return before + to - from <= LONGEST_RUN
}

/** `555-0123` without an area code, in a country of the North American plan. */
export const isLocalFiction = (from: number, to: number, country: string | null): boolean =>
  (country === 'US' || country === 'CA') && endsInTree(localTree, from, to)
