import { newStep, readEmails, type StepKind, splitName } from '@upper-field/core/tidy'
import { createColumns, type Draft } from '../../packages/core/src/tidy/draft'
import { compileStep } from '../../packages/core/src/tidy/steps'
import { perSecond } from './perSecond'

const SECONDS = 1
const ROUNDS = 3

/** What a kind of values goes through: its step, and the reading of what the step leaves. */
const STEPS: readonly {
  readonly kind: StepKind
  readonly column: string
  readonly read: (value: string) => unknown
}[] = [
  { kind: 'names', column: 'full-name', read: splitName },
  { kind: 'company', column: 'company', read: (value) => value },
  { kind: 'emails', column: 'email', read: readEmails },
]

/** Steps in values a second on one core, over the messy values of a table. */
export function stepsBench(valuesOf: (column: string) => readonly string[]): void {
  for (const { kind, column, read } of STEPS) {
    const columns = createColumns([column])
    const step = compileStep(newStep(kind, kind), { columns, report: () => {} })
    const work = (value: string) => {
      const cells = [value]
      const draft: Draft = { cells, country: '', changes: [], leftOut: NOTHING }
      step?.(draft)
      return read(cells[0] ?? '')
    }
    const values = valuesOf(column)
    const rates = Array.from({ length: ROUNDS }, () => perSecond(values, work, SECONDS))
    console.log(`step ${kind}: ${Math.round(Math.max(...rates)).toLocaleString('en')} values a second`)
  }
}

const NOTHING: ReadonlySet<never> = new Set()
