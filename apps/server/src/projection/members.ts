import type { SourceRow } from './viewOf'

/** The rows that are joined to a contact, as far as they say anything. */
export interface Members {
  /** How many there are. */
  readonly count: number
  /** In order; rows that add nothing to these are left out. */
  readonly rows: readonly SourceRow[]
}

export const NO_MEMBERS: Members = { count: 0, rows: [] }

/** Takes the rows that are joined to contacts, in order. */
export interface MembersTaken {
  add(contactId: number, row: SourceRow): void
  of(contactId: number): Members
}

/** Keeps them all. */
export const allMembers = (): MembersTaken => takenBy(keepAll)

/**
 * Keeps those that add something: a million rows may be one person, and say the same again and again. What becomes of the
 * contact is the same, by whatever rule its rows survive.
 * @param isChosen true for rows that a person chose for a part of a contact
 */
export const tellingMembers = (isChosen: (id: number) => boolean): MembersTaken => takenBy(() => keepTelling(isChosen))

interface Keeps {
  add(row: SourceRow): void
  members(): Members
}

function takenBy(keeps: () => Keeps): MembersTaken {
  const all = new Map<number, Keeps>()
  return {
    add: (contactId, row) => {
      const known = all.get(contactId) ?? keeps()
      all.set(contactId, known)
      known.add(row)
    },
    of: (contactId) => all.get(contactId)?.members() ?? NO_MEMBERS,
  }
}

function keepAll(): Keeps {
  const rows: SourceRow[] = []
  return { add: (row) => rows.push(row), members: () => ({ count: rows.length, rows }) }
}

/** Cells that became no field are searched by their first letters alone: those of so many rows are as many. */
const MOST_WITH_EXTRAS = 600

/** Rows that have the same values, numbers and e-mails. */
interface Alike {
  times: number
  readonly kept: SourceRow[]
  /** The latest may come before all others by a rule. */
  last: SourceRow
}

function keepTelling(isChosen: (id: number) => boolean): Keeps {
  const known = new Map<string, Alike>()
  const isNews = createNews()
  return {
    add: (row) => {
      const { values, numbers, emails } = row.projected
      const saying = JSON.stringify([values, numbers, emails])
      const alike = known.get(saying)
      if (!alike) known.set(saying, { times: 1, kept: [row], last: row })
      else {
        alike.times++
        alike.last = row
      }
      if ((isNews(row) || isChosen(row.id)) && alike) alike.kept.push(row)
    },
    members: () => ({
      count: [...known.values()].reduce((sum, { times }) => sum + times, 0),
      rows: [...known.values()].flatMap(standingFor).sort((a, b) => a.id - b.id),
    }),
  }
}

/** The first of them stands for those that are left out. */
function standingFor({ times, kept, last }: Alike): SourceRow[] {
  const [first, ...others] = kept.at(-1) === last ? kept : [...kept, last]
  return first ? [{ ...first, times: times - others.length }, ...others] : []
}

/** Tells of rows, one after the other, whether one has a number's cell, an extra or a column more than those before. */
function createNews(): (row: SourceRow) => boolean {
  const read = new Set<string>()
  const columns = new Set<string>()
  let withExtras = 0
  return ({ projected: { readings, extras, more } }) => {
    const before = read.size + columns.size + withExtras
    for (const { reading } of readings) for (const { e164 } of reading.numbers) read.add(e164)
    for (const column of Object.keys(more)) columns.add(column)
    if (extras.length > 0 && withExtras < MOST_WITH_EXTRAS) withExtras++
    return read.size + columns.size + withExtras > before
  }
}
