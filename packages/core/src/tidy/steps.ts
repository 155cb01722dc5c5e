import { mendLetters } from './brokenLetters'
import { mendCompanyCase, takeLegalForm } from './companyName'
import { countryOf } from './country'
import { readDate } from './dates'
import { change, type RunStep } from './draft'
import { mendEmail } from './emailForm'
import { mendEntities } from './entities'
import { createReplacer } from './findReplace'
import { namesStep } from './namesStep'
import { tidyPostalCode } from './postalCode'
import { readRefusal } from './refusal'
import { readRegion } from './region'
import type { Step } from './routine'
import { addTo, all, type Bench, type Column, type Of, onColumn } from './stepBench'
import { createTemplate, templateName } from './template'
import { readDomain, readProfile } from './web'

export type { StepProblem } from './stepBench'

/** What a step does to a row; null where it does nothing to cells. Columns it adds are added once, here. */
export function compileStep(step: Step, bench: Bench): RunStep | null {
  switch (step.kind) {
    case 'refusals':
      return refusalsStep(step, bench)
    case 'blanks':
      return blanksStep(step, bench)
    case 'letters':
      return lettersStep(step, bench)
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

/** Columns a step names, and a word about those that are gone. */
function wanted(step: Step, names: readonly string[], { columns, report }: Bench): Column[] {
  const found = names.map((name) => ({ name, at: columns.find(name) }))
  const gone = found.filter(({ at }) => at === -1).map(({ name }) => name)
  if (gone.length > 0) report({ step: step.id, code: 'column-gone', detail: gone.join(', ') })
  return found.filter(({ at }) => at !== -1)
}

/** Every column of the table, by name and place. */
const everyColumn = ({ columns }: Bench): readonly Column[] => columns.names.map((name, at) => ({ name, at }))

function blanksStep(step: Of<'blanks'>, bench: Bench): RunStep {
  const words = new Set(step.options.words.map((word) => word.trim().toLowerCase()))
  const longest = Math.max(0, ...[...words].map((word) => word.length))
  // What stands in a phone column is told by its reading, which knows these words too.
  const looked = everyColumn(bench).filter(({ name }) => !/^number(?:-\d+)?$/.test(name))
  return (draft) => {
    for (const column of looked) {
      const cell = draft.cells[column.at]
      if (cell && cell.length <= longest && words.has(cell.toLowerCase()))
        change(draft, step.id, column, 'blank-word', '')
    }
  }
}

/** Letters that a page wrote as entities or a wrong encoding broke, in every column: steps behind this one see them whole. */
function lettersStep(step: Of<'letters'>, bench: Bench): RunStep {
  const looked = everyColumn(bench)
  return (draft) => {
    for (const column of looked) {
      const decoded = mendEntities(draft.cells[column.at] ?? '')
      if (decoded !== null) change(draft, step.id, column, 'html-entities', decoded)
      const mended = mendLetters(draft.cells[column.at] ?? '')
      if (mended !== null) change(draft, step.id, column, 'broken-letters', mended)
    }
  }
}

/** Remarks that say no come out of every cell, into a column of their own. */
function refusalsStep(step: Of<'refusals'>, bench: Bench): RunStep {
  const looked = everyColumn(bench)
  const refusal = bench.columns.need('Refusal')
  return (draft) => {
    if (draft.leftOut.has('refusal')) return
    for (const column of looked) {
      const found = readRefusal(draft.cells[column.at] ?? '')
      if (found === null) continue
      change(draft, step.id, column, 'refusal', found.rest)
      addTo(draft, refusal, found.remark)
    }
  }
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
  const [region, town] = [bench.columns.find('region'), bench.columns.find('city')]
  return onColumn(bench, 'postal-code', (draft, column) => {
    const tidied = tidyPostalCode(draft.cells[column.at] ?? '', draft.country, {
      region: readRegion(draft.cells[region] ?? '', draft.country) ?? '',
      town: draft.cells[town] ?? '',
    })
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
