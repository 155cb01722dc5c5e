import {
  AS_THEY_COME,
  type HowToSurvive,
  orderFor,
  PART_FIELDS,
  PART_OF,
  type PartSource,
  type SurvivorPart,
} from './survivorship'

/** Values and identifiers of a row, whatever their shapes. */
export interface Mergeable<V extends object, N extends { e164: string }, E extends { address: string }> {
  readonly id: number
  /** How many rows it stands for that say the same; one where that is not told. */
  readonly times?: number
  readonly values: V
  readonly numbers: readonly N[]
  readonly emails: readonly E[]
}

/**
 * One contact from the rows that stand for it, the survivor's first. Each part is taken from the rows in the order
 * that rules and people give; what one row leaves blank is filled from the next. Numbers and e-mails of all are kept.
 * @param rows at least one
 */
export function mergeContacts<V extends object, N extends { e164: string }, E extends { address: string }>(
  rows: readonly [Mergeable<V, N, E>, ...Mergeable<V, N, E>[]],
  how: HowToSurvive = AS_THEY_COME,
): Mergeable<V, N, E> {
  const [survivor] = rows
  if (rows.length === 1) return survivor
  const sources = rows.map((row) => ({ row, ...sourceFrom(row) }))
  const orders = new Map<SurvivorPart, readonly Mergeable<V, N, E>[]>()
  const orderOf = (part: SurvivorPart | undefined) => {
    if (part === undefined) return rows
    const order = orders.get(part) ?? orderFor(part, sources, how).map(({ row }) => row)
    orders.set(part, order)
    return order
  }
  const values: Record<string, unknown> = {}
  for (const field of Object.keys(survivor.values)) {
    const from = orderOf(PART_OF[field]).find((row) => cellOf(row, field) !== '')
    values[field] = cellOf(from ?? survivor, field)
  }
  return {
    id: survivor.id,
    values: values as V,
    numbers: distinctBy(
      orderOf('numbers').flatMap(({ numbers }) => numbers),
      (number) => number.e164,
    ),
    emails: distinctBy(
      orderOf('emails').flatMap(({ emails }) => emails),
      (email) => email.address,
    ),
  }
}

type AnyRow = Mergeable<object, { e164: string }, { address: string }>

const cellOf = (row: AnyRow, field: string): unknown => (row.values as Record<string, unknown>)[field]

/** What a row says about a part, each value for itself. */
function partValues(row: AnyRow, part: SurvivorPart): readonly string[] {
  if (part === 'numbers') return row.numbers.map(({ e164 }) => e164)
  if (part === 'emails') return row.emails.map(({ address }) => address)
  return (PART_FIELDS[part] ?? []).map((field) => String(cellOf(row, field) ?? '')).filter((value) => value !== '')
}

const sourceFrom = (row: AnyRow): PartSource => ({
  id: row.id,
  times: row.times ?? 1,
  textOf: (part) => partValues(row, part).join(' '),
  leadOf: (part) => partValues(row, part)[0] ?? '',
})

/** The rows of a contact as sources of its parts. */
export const partSources = (rows: readonly AnyRow[]): readonly PartSource[] => rows.map(sourceFrom)

function distinctBy<T>(items: readonly T[], keyOf: (item: T) => string): T[] {
  const found = new Map<string, T>()
  for (const item of items) if (!found.has(keyOf(item))) found.set(keyOf(item), item)
  return [...found.values()]
}
