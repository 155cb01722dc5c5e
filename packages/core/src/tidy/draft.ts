import type { Change, ChangeCode } from './changes'

/** A row on its way through a routine. */
export interface Draft {
  /** Values by column; steps write into it. */
  readonly cells: string[]
  /** ISO 3166-1 alpha-2 of the row as far as is known by now, else of its batch. */
  country: string
  readonly changes: Change[]
  /** Repairs that are left out for this row. */
  readonly leftOut: ReadonlySet<ChangeCode>
}

/** Columns by name while a routine is put together: steps may add some. */
export interface Columns {
  readonly names: readonly string[]
  /** Position of a column; -1 where there is none. */
  find(name: string): number
  /** Position of a column, which is added where there is none. */
  need(name: string): number
}

export type RunStep = (draft: Draft) => void

export function createColumns(names: readonly string[]): Columns {
  const all = [...names]
  return {
    names: all,
    find: (name) => all.indexOf(name),
    need: (name) => {
      const found = all.indexOf(name)
      return found === -1 ? all.push(name) - 1 : found
    },
  }
}

/** Writes a value and tells of it, unless this repair is left out or changes nothing. */
export function change(
  draft: Draft,
  step: string,
  column: { at: number; name: string },
  code: ChangeCode,
  is: string,
): void {
  const was = draft.cells[column.at] ?? ''
  if (was === is || draft.leftOut.has(code)) return
  draft.cells[column.at] = is
  draft.changes.push({ step, code, column: column.name, was, is })
}
