import { mendCompanyCase, takeLegalForm } from './companyName'
import { countryOf } from './country'
import { readDate } from './dates'
import { type Columns, change, type Draft, type RunStep } from './draft'
import { mendEmail } from './emailForm'
import { createReplacer } from './findReplace'
import { inSpokenOrder, isPlainName, mendNameCase, takeNameApart, withoutDecorations } from './nameParts'
import { tidyPostalCode } from './postalCode'
import { readRegion } from './region'
import type { Step } from './routine'
import { createTemplate, templateName } from './template'
import { readDomain, readProfile } from './web'

/** Why a step does nothing, or less than it should. */
export interface StepProblem {
  readonly step: string
  readonly code: 'column-gone' | 'refused'
  /** Names of the columns that are gone, or the reason of the refusal. */
  readonly detail: string
}

interface Bench {
  readonly columns: Columns
  report(problem: StepProblem): void
}

type Of<K extends Step['kind']> = Extract<Step, { kind: K }>

/** What a step does to a row; null where it does nothing to cells. Columns it adds are added once, here. */
export function compileStep(step: Step, bench: Bench): RunStep | null {
  switch (step.kind) {
    case 'blanks':
      return blanksStep(step, bench)
    case 'names':
      return namesStep(step, bench)
    case 'company':
      return companyStep(step, bench)
    case 'emails':
      return emailsStep(step, bench)
    case 'country':
      return onColumn(bench, 'country', (draft, column) => {
        const code = countryOf(draft.cells[column.at] ?? '')
        if (code) change(draft, step.id, column, 'country-code', code)
      })
    case 'region':
      return onColumn(bench, 'region', (draft, column) => {
        const code = readRegion(draft.cells[column.at] ?? '', draft.country)
        if (code) change(draft, step.id, column, 'region-code', code)
      })
    case 'postal-code':
      return postalStep(step, bench)
    case 'dates':
      return datesStep(step, bench)
    case 'web':
      return webStep(step, bench)
    case 'replace':
      return replaceStep(step, bench)
    case 'derive':
      return deriveStep(step, bench)
    // Numbers are read at the end, when the country is known; columns are arranged when the row is told.
    case 'numbers':
    case 'columns':
      return null
  }
}

interface Column {
  readonly at: number
  readonly name: string
}

function onColumn({ columns }: Bench, name: string, work: (draft: Draft, column: Column) => void): RunStep | null {
  const at = columns.find(name)
  if (at === -1) return null
  const column = { at, name }
  return (draft) => {
    if (draft.cells[at]) work(draft, column)
  }
}

function all(steps: readonly (RunStep | null)[]): RunStep | null {
  const known = steps.filter((step) => step !== null)
  return known.length === 0
    ? null
    : (draft) => {
        for (const run of known) run(draft)
      }
}

/** Columns a step names, and a word about those that are gone. */
function wanted(step: Step, names: readonly string[], { columns, report }: Bench): Column[] {
  const found = names.map((name) => ({ name, at: columns.find(name) }))
  const gone = found.filter(({ at }) => at === -1).map(({ name }) => name)
  if (gone.length > 0) report({ step: step.id, code: 'column-gone', detail: gone.join(', ') })
  return found.filter(({ at }) => at !== -1)
}

function blanksStep(step: Of<'blanks'>, { columns }: Bench): RunStep {
  const words = new Set(step.options.words.map((word) => word.trim().toLowerCase()))
  const longest = Math.max(0, ...[...words].map((word) => word.length))
  // What stands in a phone column is told by its reading, which knows these words too.
  const looked = columns.names.map((name, at) => ({ name, at })).filter(({ name }) => !/^number(?:-\d+)?$/.test(name))
  return (draft) => {
    for (const column of looked) {
      const cell = draft.cells[column.at]
      if (cell && cell.length <= longest && words.has(cell.toLowerCase()))
        change(draft, step.id, column, 'blank-word', '')
    }
  }
}

function namesStep(step: Of<'names'>, bench: Bench): RunStep | null {
  const { options } = step
  const known = ['full-name', 'given-name', 'family-name'].filter((name) => bench.columns.find(name) !== -1)
  if (known.length === 0) return null
  const title = { name: 'Name title', at: options.takesTitles ? bench.columns.need('Name title') : -1 }
  const letters = { name: 'Credentials', at: options.takesTitles ? bench.columns.need('Credentials') : -1 }
  const take = (
    draft: Draft,
    column: Column,
    taken: string,
    to: Column,
    code: 'name-title' | 'name-credentials',
    rest: string,
  ) => {
    if (taken === '' || draft.leftOut.has(code)) return
    change(draft, step.id, column, code, rest)
    draft.cells[to.at] = [draft.cells[to.at], taken].filter(Boolean).join(', ')
  }
  const mend = (draft: Draft, column: Column): void => {
    const now = () => draft.cells[column.at] ?? ''
    if (isPlainName(now())) return
    if (options.takesDecorations) change(draft, step.id, column, 'name-decoration', withoutDecorations(now()))
    if (options.takesTitles) {
      const parts = takeNameApart(now())
      if (parts.title !== '' || parts.credentials !== '') {
        const behind = parts.credentials === '' ? '' : now().slice(now().indexOf(parts.name) + parts.name.length)
        take(draft, column, parts.title, title, 'name-title', `${parts.name}${behind}`)
        take(draft, column, parts.credentials, letters, 'name-credentials', takeNameApart(now()).name)
      }
    }
    if (options.split && column.name === 'full-name') change(draft, step.id, column, 'name-order', inSpokenOrder(now()))
    if (options.mendsCase) change(draft, step.id, column, 'name-case', mendNameCase(now()))
  }
  return all(known.map((name) => onColumn(bench, name, mend)))
}

function companyStep(step: Of<'company'>, bench: Bench): RunStep | null {
  const { takesLegalForm, mendsCase } = step.options
  if (bench.columns.find('company') === -1) return null
  const form = takesLegalForm ? bench.columns.need('Legal form') : -1
  return onColumn(bench, 'company', (draft, column) => {
    if (takesLegalForm && !draft.leftOut.has('company-legal-form')) {
      const taken = takeLegalForm(draft.cells[column.at] ?? '')
      if (taken.form !== '') {
        change(draft, step.id, column, 'company-legal-form', taken.name)
        draft.cells[form] = taken.form
      }
    }
    if (mendsCase) change(draft, step.id, column, 'company-case', mendCompanyCase(draft.cells[column.at] ?? ''))
  })
}

function emailsStep(step: Of<'emails'>, bench: Bench): RunStep | null {
  const known = bench.columns.names.filter((name) => /^email(?:-\d+)?$/.test(name))
  return all(
    known.map((name) =>
      onColumn(bench, name, (draft, column) => {
        const mended = mendEmail(draft.cells[column.at] ?? '')
        if (mended !== null) change(draft, step.id, column, 'email-mended', mended)
      }),
    ),
  )
}

function postalStep(step: Of<'postal-code'>, bench: Bench): RunStep | null {
  if (bench.columns.find('postal-code') === -1) return null
  const extension = bench.columns.need('Postal code extension')
  return onColumn(bench, 'postal-code', (draft, column) => {
    const tidied = tidyPostalCode(draft.cells[column.at] ?? '', draft.country)
    if (tidied.repair === null) return
    const code = tidied.repair === 'zero' ? 'postal-code-zero' : 'postal-code-form'
    if (draft.leftOut.has(code)) return
    change(draft, step.id, column, code, tidied.code)
    if (tidied.extension !== '') draft.cells[extension] = tidied.extension
  })
}

function datesStep(step: Of<'dates'>, bench: Bench): RunStep | null {
  return all(
    wanted(step, step.options.columns, bench).map((column) =>
      onColumn(bench, column.name, (draft) => {
        const date = readDate(draft.cells[column.at] ?? '', step.options.order)
        if (date !== null) change(draft, step.id, column, 'date-form', date)
      }),
    ),
  )
}

function webStep(step: Step, bench: Bench): RunStep | null {
  const web = onColumn(bench, 'web', (draft, column) => {
    const domain = readDomain(draft.cells[column.at] ?? '')
    if (domain) change(draft, step.id, column, 'web-domain', domain)
  })
  const profile = onColumn(bench, 'profile', (draft, column) => {
    const form = readProfile(draft.cells[column.at] ?? '')
    if (form) change(draft, step.id, column, 'profile-form', form)
  })
  return all([web, profile])
}

function replaceStep(step: Of<'replace'>, bench: Bench): RunStep | null {
  const made = createReplacer(step.options)
  if (made.status === 'refused') {
    bench.report({ step: step.id, code: 'refused', detail: made.why })
    return null
  }
  return all(
    wanted(step, step.options.columns, bench).map((column) =>
      onColumn(bench, column.name, (draft) =>
        change(draft, step.id, column, 'replaced', made.replace(draft.cells[column.at] ?? '')),
      ),
    ),
  )
}

function deriveStep(step: Of<'derive'>, bench: Bench): RunStep | null {
  const name = step.options.column.trim()
  const made = createTemplate(step.options.template)
  const why = made.status === 'refused' ? made.why : name === '' ? 'The new column needs a name.' : null
  if (made.status === 'refused' || why !== null) {
    bench.report({ step: step.id, code: 'refused', detail: why ?? '' })
    return null
  }
  const sources = bench.columns.names.map((column, at) => ({ name: templateName(column), at }))
  const column = { name, at: bench.columns.need(name) }
  return (draft) => {
    const values = Object.fromEntries(sources.map((source) => [source.name, draft.cells[source.at] ?? '']))
    change(draft, step.id, column, 'derived', made.render(values))
  }
}
