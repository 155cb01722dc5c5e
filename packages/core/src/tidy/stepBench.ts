import type { Columns, Draft, RunStep } from './draft'
import type { Step } from './routine'

/** Why a step does nothing, or less than it should. */
export interface StepProblem {
  readonly step: string
  readonly code: 'column-gone' | 'refused'
  /** Names of the columns that are gone, or the reason of the refusal. */
  readonly detail: string
}

/** What a step is put together from. */
export interface Bench {
  readonly columns: Columns
  report(problem: StepProblem): void
}

export type Of<K extends Step['kind']> = Extract<Step, { kind: K }>

export interface Column {
  readonly at: number
  readonly name: string
}

/** Work on the filled cells of one column; null where the file has none of that name. */
export function onColumn(
  { columns }: Bench,
  name: string,
  work: (draft: Draft, column: Column) => void,
): RunStep | null {
  const at = columns.find(name)
  if (at === -1) return null
  const column = { at, name }
  return (draft) => {
    if (draft.cells[at]) work(draft, column)
  }
}

/** Several pieces of work, one after another; null where there is none. */
export function all(steps: readonly (RunStep | null)[]): RunStep | null {
  const known = steps.filter((step) => step !== null)
  return known.length === 0
    ? null
    : (draft) => {
        for (const run of known) run(draft)
      }
}

/** Puts a value behind what a column holds already. */
export function addTo(draft: Draft, at: number, text: string): void {
  draft.cells[at] = [draft.cells[at], text].filter(Boolean).join(', ')
}
