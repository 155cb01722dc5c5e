import {
  type Fix,
  isUnsure,
  lettersAsDigits,
  nearestFixes,
  onlyNumberIn,
  type Problem,
  type Reading,
  type ReadNumber,
} from '../phone'
import type { Field, Mapping } from '../table'
import { proposeEmail, proposeReadable } from './emailForm'
import { partsOfSplitAddress, readEmails } from './emails'
import { tidyPostalCode } from './postalCode'
import { readRegion } from './region'
import { twoPeople } from './twoPeople'

/** A cell that needs a person. */
export interface HandCell {
  readonly column: number
  /** What stands there now. */
  readonly raw: string
  readonly problem: Problem | 'no-address' | 'slip-in-domain' | 'two-people' | 'zero-contradicted'
  /** What it may have been, likeliest first. Nothing of it is applied before a person says so. */
  readonly fixes: readonly Fix[]
  /** How promising it is, from 1 to 4; the most promising are shown first. */
  readonly rank: number
}

/** Problems of cells that hold something else than a number: nothing can be mended, but somebody may know better. */
const SOMETHING_ELSE: readonly Problem[] = [
  'masked',
  'digits-lost',
  'date',
  'opening-hours',
  'money',
  'percentage',
  'coordinates',
  'card',
  'ip-address',
  'email',
  'reference-number',
  'no-digits',
  'cell-too-long',
]

export interface HandInput {
  readonly cells: readonly string[]
  readonly mapping: Mapping
  readonly readings: readonly { readonly column: number; readonly raw: string; readonly reading: Reading }[]
  readonly numbers: readonly ReadNumber[]
  readonly country: string
  /** The country that the other cells of the row tell; null where they tell none. */
  readonly rowSays?: () => string | null
  /** Mail hosts that many of the same list are at. */
  readonly publicHosts?: ReadonlySet<string>
}

const NONE: readonly HandCell[] = []

/**
 * What a contact's first cell needs, as a key: its problem and the kind of the likeliest mending. Cells with the same key
 * hold the same slip. Empty where nothing is proposed.
 */
export function slipOf(cells: readonly HandCell[]): string {
  const [cell] = cells
  const fix = cell?.fixes[0]
  return cell && fix ? slipKey(cell.problem, fix.kind) : ''
}

export const slipKey = (problem: string, fix: string): string => `${problem}/${fix}`

/** Cells of a row that a person should look at, the most promising first. */
export function handOf(input: HandInput): readonly HandCell[] {
  const found = [...handOfNumbers(input), ...handOfEmails(input), ...handOfNames(input), ...handOfPostalCode(input)]
  return found.length === 0 ? NONE : found.sort((a, b) => b.rank - a.rank)
}

function handOfNumbers({ readings, numbers, country, rowSays = () => null }: HandInput): readonly HandCell[] {
  if (readings.every(({ reading }) => reading.problem === null)) return NONE
  const isReached = numbers.some(({ valid }) => valid)
  return readings.flatMap(({ column, raw, reading }): HandCell[] => {
    const { problem } = reading
    if (problem === null || problem === 'left-out') return []
    const isElse = SOMETHING_ELSE.includes(problem)
    const fixes = isElse
      ? lettersAsDigits(raw, country || null)
      : isUnsure(reading)
        ? bothReadings(reading)
        : fixesOf(raw, country, rowSays())
    const promise = (isElse ? 0 : 1) + (fixes.length > 0 ? 1 : 0) + (isElse || isReached ? 0 : 1)
    return [{ column, raw, problem, fixes, rank: Math.max(1, promise) }]
  })
}

const MOST_FIXES = 3

/** What a cell may have been: where the row says another country than it is read under, a number of that one first. */
function fixesOf(raw: string, country: string, rowSays: string | null): readonly Fix[] {
  const near = nearestFixes(raw, country || null)
  if (rowSays === null || rowSays === country) return near
  const e164 = onlyNumberIn(raw, rowSays)
  return e164 === null ? near : [{ kind: 'other-country' as const, text: e164 }, ...near].slice(0, MOST_FIXES)
}

/** Numbers of one stem are one reading together; the whole as one number is the other. */
function bothReadings({ numbers, repairs }: Reading): readonly Fix[] {
  const [first = '', ...others] = numbers.map(({ e164 }) => e164)
  const readings = repairs.includes('shared-stem') ? [first, others.join(', ')] : [first, ...others]
  return readings.map((text): Fix => ({ kind: 'reading', text }))
}

function handOfNames({ cells, mapping }: HandInput): readonly HandCell[] {
  const column = mapping.indexOf('full-name')
  const raw = column === -1 ? '' : (cells[column] ?? '')
  const people = raw === '' ? null : twoPeople(raw)
  if (people === null) return NONE
  return [{ column, raw, problem: 'two-people', fixes: people.map((text): Fix => ({ kind: 'person', text })), rank: 1 }]
}

function handOfPostalCode({ cells, mapping, country }: HandInput): readonly HandCell[] {
  const column = mapping.indexOf('postal-code')
  const raw = column === -1 ? '' : (cells[column] ?? '')
  // Five digits lack none, wherever they are: most codes need no closer look.
  if (raw === '' || raw.length > 5 || /^\d{5}$/.test(raw)) return NONE
  const cellOf = (field: Field) => cells[mapping.indexOf(field)] ?? ''
  const around = { region: readRegion(cellOf('region'), country) ?? '', town: cellOf('city') }
  const { doubted } = tidyPostalCode(raw, country, around)
  if (doubted === '') return NONE
  return [{ column, raw, problem: 'zero-contradicted', fixes: [{ kind: 'code', text: doubted }], rank: 1 }]
}

function handOfEmails({ cells, mapping, publicHosts }: HandInput): readonly HandCell[] {
  let found: HandCell[] | null = null
  for (let column = 0; column < mapping.length; column++) {
    const raw = mapping[column] === 'email' ? (cells[column] ?? '') : ''
    if (raw === '') continue
    const hand = handOfEmail(column, raw, publicHosts)
    if (hand) found = [...(found ?? []), hand]
  }
  return found ?? NONE
}

/** What a cell without an address may have been, likeliest first. */
function proposeWhole(raw: string): readonly Fix[] {
  const parts = partsOfSplitAddress(raw)
  const readable = parts === null ? proposeReadable(raw) : null
  if (readable !== null) return [{ kind: 'domain', text: readable }]
  if (parts === null) return []
  return [
    { kind: 'parts-joined', text: parts.join('.') },
    { kind: 'parts-joined', text: parts.join('') },
    { kind: 'part', text: parts[1] },
  ]
}

function handOfEmail(column: number, raw: string, publicHosts?: ReadonlySet<string>): HandCell | null {
  const [email] = readEmails(raw)
  if (!email) {
    const fixes = proposeWhole(raw)
    return { column, raw, problem: 'no-address', fixes, rank: fixes.length === 0 ? 2 : 4 }
  }
  const proposal = proposeEmail(email.address, publicHosts)
  if (proposal === null) return null
  return { column, raw, problem: 'slip-in-domain', fixes: [{ kind: 'domain', text: proposal }], rank: 4 }
}
