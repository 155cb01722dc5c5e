import { isValidE164 } from '@upper-field/core/phone'
import type { Random, WorldNumber, WorldPerson } from '@upper-field/standins/world'

/** What a cell should be read as. `e164s` are the numbers that are valid, in order; of a doubtful one nobody holds any. */
export interface CellTruth {
  readonly fault: string
  readonly cell: string
  readonly verdict: 'clean' | 'repaired' | 'doubtful' | 'unreadable' | 'placeholder' | 'empty'
  readonly e164s: readonly string[]
}

interface Fault {
  readonly name: string
  readonly weight: number
  /** Null where the fault cannot befall this number. */
  readonly write: (input: FaultInput) => Omit<CellTruth, 'fault'> | null
}

interface FaultInput {
  readonly number: WorldNumber
  readonly person: WorldPerson
  readonly random: Random
}

const national = ({ number, person }: FaultInput): string =>
  person.company.place.trunk + number.e164.slice(1 + person.company.place.code.length)
const significant = ({ number, person }: FaultInput): string => number.e164.slice(1 + person.company.place.code.length)
const codeOf = ({ person }: FaultInput): string => person.company.place.code
const hasTrunk = ({ person }: FaultInput): boolean => person.company.place.trunk === '0'

const read = (verdict: CellTruth['verdict'], cell: string, { number }: FaultInput) => ({
  cell,
  verdict,
  e164s: [number.e164],
})
const unread = (verdict: CellTruth['verdict'], cell: string) => ({ cell, verdict, e164s: [] })

/** Without its zero a number of Kiel is one of Vienna without its plus: both, the true one first. */
function withoutZero(input: FaultInput): Omit<CellTruth, 'fault'> {
  const cell = significant(input)
  const isTwo = input.number.type !== 'mobile' && cell.length >= LEAST_WITH_CODE && isValidE164(`+${cell}`)
  return isTwo ? { cell, verdict: 'doubtful', e164s: [input.number.e164, `+${cell}`] } : read('repaired', cell, input)
}

/** Fewer digits are too few for a code and a number. */
const LEAST_WITH_CODE = 10

/** Digits in groups, as people write them. */
const grouped = (digits: string, separator: string): string =>
  digits.replace(/^(\d{3,5})(\d{3})(\d+)$/, `$1${separator}$2${separator}$3`)

/** Every fault of the phone table, and how often it befalls a cell. */
export const FAULTS: readonly Fault[] = [
  { name: 'as it should be', weight: 30, write: (i) => read('clean', i.number.e164, i) },
  {
    name: 'national',
    weight: 26,
    write: (i) => read('clean', grouped(national(i), i.random.pick([' ', '-', '.'])), i),
  },
  {
    name: 'no-break and thin spaces',
    weight: 4,
    write: (i) => read('clean', grouped(national(i), i.random.pick(['\u00a0', '\u2009', '\u202f'])), i),
  },
  {
    name: 'full-width digits',
    weight: 1,
    write: (i) =>
      read(
        'clean',
        national(i).replace(/\d/g, (d) => String.fromCharCode(0xff10 + Number(d))),
        i,
      ),
  },
  {
    name: 'Arabic-Indic digits',
    weight: 1,
    write: (i) =>
      read(
        'clean',
        national(i).replace(/\d/g, (d) => String.fromCharCode(0x0660 + Number(d))),
        i,
      ),
  },
  {
    name: 'trunk zero inside',
    weight: 6,
    write: (i) => (hasTrunk(i) ? read('repaired', `+${codeOf(i)} (0)${grouped(significant(i), ' ')}`, i) : null),
  },
  {
    name: '00 for plus',
    weight: 5,
    write: (i) => (hasTrunk(i) ? read('repaired', `00${codeOf(i)} ${grouped(significant(i), ' ')}`, i) : null),
  },
  {
    name: 'code without plus',
    weight: 5,
    write: (i) => (hasTrunk(i) ? read('repaired', `${codeOf(i)}${significant(i)}`, i) : null),
  },
  {
    name: 'extension',
    weight: 3,
    write: (i) => read('clean', `${grouped(national(i), ' ')} ext. ${10 + i.random.below(90)}`, i),
  },
  {
    name: 'two numbers in a cell',
    weight: 4,
    write: (i) => {
      const second = i.person.company.switchboard
      if (second === i.number) return null
      const cell = `${grouped(national(i), ' ')} / ${grouped(national({ ...i, number: second }), ' ')}`
      return { cell, verdict: 'repaired', e164s: [i.number.e164, second.e164] }
    },
  },
  {
    name: 'label before',
    weight: 4,
    write: (i) => read('repaired', `${i.number.type === 'mobile' ? 'Mob' : 'Tel'}: ${grouped(national(i), '-')}`, i),
  },
  {
    name: 'label behind',
    weight: 2,
    write: (i) => read('repaired', `${national(i)} (${i.number.type === 'mobile' ? 'mobile' : 'office'})`, i),
  },
  { name: 'URI', weight: 1, write: (i) => read('clean', `tel:${i.number.e164}`, i) },
  {
    name: 'letter O for zero',
    weight: 2,
    write: (i) => (hasTrunk(i) ? read('repaired', `O${significant(i)}`, i) : null),
  },
  {
    name: 'notation, digits lost',
    weight: 2,
    write: (i) => unread('unreadable', `${i.number.e164[1]}.${i.number.e164.slice(2, 7)}E+${i.number.e164.length - 2}`),
  },
  {
    name: 'notation, digits kept',
    weight: 1,
    write: (i) => read('repaired', `${i.number.e164[1]}.${i.number.e164.slice(2)}E+${i.number.e164.length - 2}`, i),
  },
  { name: 'decimal tail', weight: 2, write: (i) => read('repaired', `${i.number.e164.slice(1)}.0`, i) },
  { name: 'leading apostrophe', weight: 2, write: (i) => read('repaired', `'${i.number.e164}`, i) },
  { name: 'leading zero lost', weight: 7, write: (i) => (hasTrunk(i) ? withoutZero(i) : null) },
  {
    name: 'placeholder',
    weight: 2,
    write: (i) => unread('placeholder', i.random.pick(['0000000000', '1234567890', '9999999999'])),
  },
  {
    name: 'nothing',
    weight: 5,
    write: (i) => unread('empty', i.random.pick(['', 'N/A', '-', 'none', 'unknown', ' '])),
  },
  { name: 'masked', weight: 1, write: (i) => unread('unreadable', `${national(i).slice(0, -4)}xxxx`) },
  {
    name: 'code twice',
    weight: 1,
    write: (i) => (hasTrunk(i) ? read('repaired', `+${codeOf(i)} 00${codeOf(i)} ${significant(i)}`, i) : null),
  },
  {
    name: 'a digit too many',
    weight: 2,
    // Only where every number has the same length, so that one more cannot be a number too.
    write: (i) => {
      if (!['GB', 'FR', 'ES'].includes(i.person.company.place.country)) return null
      const at = 4 + i.random.below(4)
      const digits = national(i)
      return unread('unreadable', `${digits.slice(0, at)}${digits[at - 1]}${digits.slice(at)}`)
    },
  },
  { name: 'a date', weight: 1, write: () => unread('unreadable', '03.05.2026') },
  { name: 'an e-mail', weight: 1, write: (i) => unread('unreadable', i.person.workEmail) },
  {
    name: 'an order number',
    weight: 1,
    write: (i) => unread('unreadable', `ORD-2026-${10000 + i.random.below(89999)}`),
  },
]

/** Writes a number with a fault drawn by weight from those named, or from all. */
export function writeCell(input: FaultInput, names?: ReadonlySet<string>): CellTruth {
  const faults = names ? FAULTS.filter(({ name }) => names.has(name)) : FAULTS
  const total = faults.reduce((sum, { weight }) => sum + weight, 0)
  for (;;) {
    let at = input.random.below(total)
    const fault = faults.find(({ weight }) => {
      at -= weight
      return at < 0
    })
    const written = fault?.write(input)
    if (fault && written) return { fault: fault.name, ...written }
  }
}
