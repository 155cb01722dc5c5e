import { FIELDS, type Field, type Mapping } from '../table'

/** A routine is written with this version; a later one is refused rather than half understood. */
export const ROUTINE_VERSION = 1

export const STEP_KINDS = [
  'letters',
  'refusals',
  'blanks',
  'numbers',
  'names',
  'company',
  'emails',
  'country',
  'region',
  'postal-code',
  'dates',
  'web',
  'replace',
  'derive',
  'columns',
] as const
export type StepKind = (typeof STEP_KINDS)[number]

export const DATE_ORDERS = ['day-first', 'month-first', 'year-first'] as const
export type DateOrder = (typeof DATE_ORDERS)[number]

/** Options of each kind of step. Columns are named by their field, or by their heading where they became none. */
export interface StepOptions {
  readonly letters: Readonly<Record<string, never>>
  readonly refusals: Readonly<Record<string, never>>
  readonly blanks: { readonly words: readonly string[] }
  readonly numbers: Readonly<Record<string, never>>
  readonly names: {
    readonly split: boolean
    readonly mendsCase: boolean
    readonly takesTitles: boolean
    readonly takesDecorations: boolean
  }
  readonly company: { readonly takesLegalForm: boolean; readonly mendsCase: boolean }
  readonly emails: Readonly<Record<string, never>>
  readonly country: Readonly<Record<string, never>>
  readonly region: Readonly<Record<string, never>>
  readonly 'postal-code': Readonly<Record<string, never>>
  readonly dates: { readonly columns: readonly string[]; readonly order: DateOrder }
  readonly web: Readonly<Record<string, never>>
  readonly replace: {
    readonly columns: readonly string[]
    readonly find: string
    readonly with: string
    readonly isPattern: boolean
    readonly minds: 'case' | 'nothing'
  }
  readonly derive: { readonly column: string; readonly template: string }
  readonly columns: {
    readonly hidden: readonly string[]
    readonly renamed: Readonly<Record<string, string>>
    /** These first, in this order; the others behind them as they stood. */
    readonly order: readonly string[]
  }
}

export type Step = {
  [K in StepKind]: { readonly id: string; readonly kind: K; readonly isOn: boolean; readonly options: StepOptions[K] }
}[StepKind]

export interface Routine {
  readonly version: number
  readonly steps: readonly Step[]
}

/** Words that stand in cells and mean that nothing is known. */
export const BLANK_WORDS: readonly string[] = [
  'n/a',
  'na',
  '-',
  '--',
  '—',
  'none',
  'null',
  'nil',
  'unknown',
  'not known',
  'tbc',
  'tbd',
  '?',
  'keine angabe',
  'unbekannt',
  'k.a.',
  'inconnu',
  'néant',
  'desconocido',
  'sconosciuto',
  'onbekend',
]

const OPTIONS: StepOptions = {
  letters: {},
  refusals: {},
  blanks: { words: BLANK_WORDS },
  numbers: {},
  names: { split: true, mendsCase: true, takesTitles: true, takesDecorations: true },
  company: { takesLegalForm: true, mendsCase: true },
  emails: {},
  country: {},
  region: {},
  'postal-code': {},
  dates: { columns: [], order: 'day-first' },
  web: {},
  replace: { columns: [], find: '', with: '', isPattern: false, minds: 'nothing' },
  derive: { column: '', template: '' },
  columns: { hidden: [], renamed: {}, order: [] },
}

/** A step of a kind with the options it begins with. */
export const newStep = (kind: StepKind, id: string): Step => ({ id, kind, isOn: true, options: OPTIONS[kind] }) as Step

/** Steps that may stand in a routine more than once. */
export const isRepeatableStep = (kind: StepKind): boolean =>
  kind === 'dates' || kind === 'replace' || kind === 'derive' || kind === 'columns'

const WANTED_BY: Partial<Record<StepKind, readonly Field[]>> = {
  numbers: ['number'],
  names: ['full-name', 'given-name', 'family-name'],
  company: ['company'],
  emails: ['email'],
  country: ['country'],
  region: ['region'],
  'postal-code': ['postal-code'],
  web: ['web', 'profile'],
}

/** Steps that look at every column, whatever it holds. */
const ANYWHERE: ReadonlySet<StepKind> = new Set(['letters', 'refusals', 'blanks'])

/** What every list begins with, before anything is known of its columns. */
export const EVERYTHING: Mapping = FIELDS

/** The routine proposed for a list: a step for everything its columns hold, switched on. */
export function proposeRoutine(mapping: Mapping = EVERYTHING): Routine {
  const kinds = STEP_KINDS.filter((kind) => {
    const fields = WANTED_BY[kind]
    return ANYWHERE.has(kind) || (fields?.some((field) => mapping.includes(field)) ?? false)
  })
  return { version: ROUTINE_VERSION, steps: kinds.map((kind) => newStep(kind, kind)) }
}
