import { columnKey, FIELDS, type Field, type Mapping } from '../table'
import { type ChangeCode, EDIT } from './changes'
import { countryOf } from './country'
import { countryOfRow } from './countryOfRow'
import { createColumns, type Draft, type RunStep } from './draft'
import { readEmails } from './emails'
import type { HandCell } from './hand'
import { gather, type ProjectedContact, projectRow } from './projectRow'
import { ROUTINE_VERSION, type Routine, type Step } from './routine'
import { compileStep, type StepProblem } from './steps'

/** Columns of a file: what became a field, and what stays an extra. */
export interface Layout {
  readonly mapping: Mapping
  readonly headings: readonly string[]
}

export interface RoutineOptions {
  /** ISO 3166-1 alpha-2 that counts where the row names no country. */
  readonly defaultCountry?: string | null
  /** Mail hosts that are nobody's own, beside those that are known everywhere. */
  readonly publicHosts?: ReadonlySet<string>
  /** Repairs that are left out for every row. */
  readonly leftOut?: ReadonlySet<ChangeCode>
}

/** What a person has settled for one contact. */
export interface Settled {
  /** Values by column name, in place of what the routine makes of the cell. */
  readonly edits: Readonly<Record<string, string>>
  readonly leftOut: ReadonlySet<ChangeCode>
}

/** What a routine is made of once it is ready: for whoever compares two. */
export interface RoutineParts {
  /** Names of all columns, those that steps have added included. */
  readonly names: readonly string[]
  /** So many of them are the file's, and stand first. */
  readonly fileWidth: number
  readonly stages: readonly Stage[]
  /** All that the end of a row hangs on besides its draft. */
  readonly ending: Ending
  readonly leftOut: ReadonlySet<ChangeCode>
  /** A row before the first step. */
  begin(cells: readonly string[], settled: Settled | undefined): Draft
  /** What a person has given instead, behind the last step. */
  edit(draft: Draft, settled: Settled | undefined): void
  end(draft: Draft, settled: Settled | undefined): ProjectedContact
}

/** A step that is on. */
export interface Stage {
  readonly step: Step
  /** Null where it does nothing to cells. */
  readonly run: RunStep | null
  /** How many columns there are once it has added its own. */
  readonly width: number
}

interface Ending {
  readonly defaultCountry: string | null
  readonly publicHosts: ReadonlySet<string>
  readonly splitsNames: boolean
  readonly numbersStep: string | null
  readonly emailsStep: string | null
}

/** A routine made ready for the files of one layout. */
export interface Tidier {
  readonly parts: RoutineParts
  /** Names of all columns that a value can be given in: the file's, those added by steps, and every field. */
  readonly columns: readonly string[]
  readonly problems: readonly StepProblem[]
  tidy(cells: readonly string[], settled?: Settled): ProjectedContact
  /** Headings of the tidied table: those of the file, then those of columns that steps have added. */
  readonly headings: readonly string[]
  /** A row of the tidied table: numbers in E.164, e-mails in their one form, what cannot be read as it stands. */
  rowOf(cells: readonly string[], settled?: Settled): readonly string[]
  /** Names of the columns that became no field, as the columns step arranges them. */
  readonly extraNames: readonly string[]
  /** Values of the columns that became no field, by name and in order: as the columns step arranges them. */
  extrasOf(cells: readonly string[], settled?: Settled): readonly (readonly [name: string, value: string])[]
}

const NO_HOSTS: ReadonlySet<string> = new Set()
const NOTHING: ReadonlySet<ChangeCode> = new Set()

/** Names of a file's columns: the field, with a number from the second on, or the heading. Names are never twice. */
export function columnNames({ mapping, headings }: Layout): readonly string[] {
  const taken = new Set<string>()
  return mapping.map((field, i) => {
    const base = field ?? (headings[i]?.trim() || `Column ${i + 1}`)
    let name: string = field === null && isField(base) ? `${base} (extra)` : base
    for (let n = 2; taken.has(name); n++) name = field === null ? `${base} ${n}` : `${base}-${n}`
    taken.add(name)
    return name
  })
}

const isField = (name: string): boolean => (FIELDS as readonly string[]).includes(name)

/** The field of a column by its name; null for extras. */
export function fieldOf(column: string): Field | null {
  const base = column.replace(/^(number|email)-\d+$/, '$1')
  return isField(base) ? (base as Field) : null
}

/**
 * Makes a routine ready: columns are looked up once, then it runs row by row. Pure: the same row, routine and settled
 * facts give the same contact, so a step that is switched off gives back exactly what was there.
 * @throws never for what a routine says: steps that cannot work are told in `problems` and do nothing
 */
export function compileRoutine(
  routine: Routine,
  layout: Layout,
  { defaultCountry = null, publicHosts = NO_HOSTS, leftOut = NOTHING }: RoutineOptions = {},
): Tidier {
  const problems: StepProblem[] = []
  const columns = createColumns(columnNames(layout))
  const steps = routine.version === ROUTINE_VERSION ? routine.steps.filter(({ isOn }) => isOn) : []
  const stages = steps.map((step): Stage => {
    const run = compileStep(step, { columns, report: (problem) => problems.push(problem) })
    return { step, run, width: columns.names.length }
  })
  const inTable = columns.names.length
  // A person may know what the file has no column for.
  for (const field of FIELDS) columns.need(field)
  const mapping = columns.names.map(fieldOf)
  const country = columns.find('country')
  const numbersStep = steps.find(({ kind }) => kind === 'numbers')?.id ?? null
  const emailsStep = steps.find(({ kind }) => kind === 'emails')?.id ?? null
  const names = steps.find((step): step is Extract<Step, { kind: 'names' }> => step.kind === 'names')
  const width = columns.names.length
  const keys = columns.names.map(columnKey)
  const splitsNames = names?.options.split ?? false
  const ending: Ending = {
    defaultCountry,
    publicHosts,
    splitsNames,
    numbersStep,
    emailsStep,
  }
  const parts: RoutineParts = {
    names: columns.names,
    fileWidth: layout.mapping.length,
    stages,
    ending,
    leftOut,
    begin: (cells, settled) => {
      const skipped =
        settled === undefined || settled.leftOut.size === 0 ? leftOut : new Set([...leftOut, ...settled.leftOut])
      const draft: Draft = { cells: filled(cells, width), country: defaultCountry ?? '', changes: [], leftOut: skipped }
      const stated = country === -1 ? '' : (draft.cells[country] ?? '')
      if (stated !== '') draft.country = countryOf(stated) ?? draft.country
      if (draft.country === '') draft.country = countryOfRow(gather(draft.cells, mapping).byField) ?? ''
      return draft
    },
    edit: (draft, settled) => {
      if (settled) edit(draft, columns.names, settled.edits)
    },
    // Written out: it runs for every row, and a spread takes longer than some steps.
    end: (draft, settled) => {
      const traces = {
        mapping,
        defaultCountry,
        publicHosts,
        splitsNames,
        names: columns.names,
        keys,
        numbersStep,
        emailsStep,
        draft,
      }
      return confirmed(projectRow(draft.cells, traces), columns.names, settled)
    },
  }
  const run = (cells: readonly string[], settled: Settled | undefined): Draft => {
    const draft = parts.begin(cells, settled)
    for (const stage of stages) stage.run?.(draft)
    parts.edit(draft, settled)
    return draft
  }
  const arranged = arrangement(steps, columns.names, mapping)
  const table = arrangement(steps, columns.names.slice(0, inTable), [])
  return {
    parts,
    columns: columns.names,
    problems,
    headings: table.map(({ at, name }) => (name === columns.names[at] ? layout.headings[at] || name : name)),
    rowOf: (cells, settled) => {
      const draft = run(cells, settled)
      const read = written(parts.end(draft, undefined), draft.cells, mapping)
      return table.map(({ at }) => read[at] ?? '')
    },
    extraNames: arranged.map(({ name }) => name),
    tidy: (cells, settled) => parts.end(run(cells, settled), settled),
    extrasOf: (cells, settled) => {
      const { cells: values } = run(cells, settled)
      return arranged.flatMap(({ at, name }) => (values[at] ? [[name, values[at]] as const] : []))
    },
  }
}

/** What a person has looked at and left as it stood needs no second look, where nothing is unreadable in it. */
function confirmed(
  contact: ProjectedContact,
  names: readonly string[],
  settled: Settled | undefined,
): ProjectedContact {
  if (settled === undefined || contact.hand.length === 0) return contact
  const isLeft = ({ column, problem }: HandCell) =>
    (problem === 'two-people' || problem === 'zero-contradicted') && Object.hasOwn(settled.edits, names[column] ?? '')
  return { ...contact, hand: contact.hand.filter((cell) => !isLeft(cell)) }
}

function filled(cells: readonly string[], width: number): string[] {
  const all = new Array<string>(width)
  for (let i = 0; i < width; i++) all[i] = cells[i]?.trim() ?? ''
  return all
}

/** The cells as they are written into a table: phone and e-mail cells by what was read in them. */
function written(
  { readings, emails }: ProjectedContact,
  cells: readonly string[],
  mapping: Mapping,
): readonly string[] {
  const all = [...cells]
  for (const { column, reading } of readings) {
    if (reading.numbers.length > 0)
      all[column] = reading.numbers
        .map(({ e164, extension }) => (extension ? `${e164};ext=${extension}` : e164))
        .join(', ')
    else if (reading.verdict === 'empty') all[column] = ''
  }
  const known = new Set(emails.map(({ address }) => address))
  mapping.forEach((field, at) => {
    if (field !== 'email') return
    const taken = readEmails(all[at] ?? '').filter(({ address }) => known.has(address))
    if (taken.length > 0) all[at] = taken.map(({ address }) => address).join(', ')
  })
  return all
}

function edit(draft: Draft, names: readonly string[], edits: Readonly<Record<string, string>>): void {
  for (const [column, value] of Object.entries(edits)) {
    const at = names.indexOf(column)
    const was = draft.cells[at] ?? ''
    if (at === -1 || was === value) continue
    draft.cells[at] = value
    draft.changes.push({ step: EDIT, code: 'edited', column, was, is: value })
  }
}

/** The extra columns that are shown, in their order, under their new names. */
function arrangement(
  steps: readonly Step[],
  names: readonly string[],
  mapping: Mapping,
): readonly { readonly at: number; readonly name: string }[] {
  let all = names.flatMap((name, at) => (mapping[at] ? [] : [{ at, name, was: name }]))
  for (const step of steps) {
    if (step.kind !== 'columns') continue
    const { hidden, renamed, order } = step.options
    const place = (name: string) => (order.includes(name) ? order.indexOf(name) : order.length)
    all = all
      .filter(({ was }) => !hidden.includes(was))
      .sort((a, b) => place(a.was) - place(b.was))
      .map((one) => ({ ...one, name: Object.hasOwn(renamed, one.was) ? (renamed[one.was] ?? one.name) : one.name }))
  }
  return all
}
