import { FORMATS } from './formatData'

/** One way of writing numbers: pattern, how its groups stand, what they start with, and the form at home. */
export type PlanFormat = readonly [pattern: string, form: string, leading: string, home: string]

/** How the numbers of a calling code are written. */
export interface NumberForms {
  readonly code: number
  /** The code in digits, and with its plus sign. */
  readonly text: string
  readonly plus: string
  /** What is dialled in front of a national number at home; often nothing. */
  readonly trunk: string
  readonly formats: readonly PlanFormat[]
  /** How its numbers are written for others, where that differs. */
  readonly formatsAbroad: readonly PlanFormat[]
}

const raw = FORMATS as unknown as Readonly<
  Record<
    string,
    { readonly trunk: string; readonly home: readonly PlanFormat[]; readonly abroad: readonly PlanFormat[] }
  >
>

export function numberFormsOf(code: number): NumberForms {
  const { trunk = '', home = [], abroad = [] } = raw[code] ?? {}
  return { code, text: String(code), plus: `+${code}`, trunk, formats: home, formatsAbroad: abroad }
}

interface Format {
  readonly pattern: RegExp
  readonly leading: RegExp | null
  readonly form: string
  readonly home: string
  readonly hasZero: boolean
}

interface Formats {
  readonly home: readonly Format[]
  readonly abroad: readonly Format[]
}

const known = new Map<number, Formats>()

/** Formats of a calling code; their patterns are made when its first number is written. */
function formatsOf(code: NumberForms): Formats {
  const found = known.get(code.code)
  if (found) return found
  const home = code.formats.map((one) => formatOf(one, code.trunk))
  const made = {
    home,
    abroad: code.formatsAbroad.length === 0 ? home : code.formatsAbroad.map((one) => formatOf(one, code.trunk)),
  }
  known.set(code.code, made)
  return made
}

function formatOf([pattern, form, leading, home]: PlanFormat, trunk: string): Format {
  return {
    pattern: new RegExp(`^(?:${pattern})$`),
    leading: leading === '' ? null : new RegExp(`^(?:${leading})`),
    form,
    // The rule says how the first group stands at home.
    home: home === '' ? form : form.replace(/\$\d/, home.replace(/\$1/, '$$&')),
    hasZero: trunk === '0' && home.replace(/[^\d$]/g, '').startsWith('0'),
  }
}

const chosen = (formats: readonly Format[], national: string): Format | undefined =>
  formats.find(({ leading, pattern }) => (leading?.test(national) ?? true) && pattern.test(national))

/** A national number as it is written at home. */
export function nationalForm(code: NumberForms, national: string): string {
  const format = chosen(formatsOf(code).home, national)
  return format ? national.replace(format.pattern, format.home) : national
}

/** A national number as it is written for others, behind its calling code. */
export function internationalForm(code: NumberForms, national: string): string {
  const format = chosen(formatsOf(code).abroad, national)
  return `${code.plus} ${format ? national.replace(format.pattern, format.form) : national}`
}

/** True where the country of this calling code writes the number with a zero dialled in front. */
export function isWrittenWithZero(code: NumberForms, national: string): boolean {
  if (code.trunk !== '0' || national.startsWith('0')) return false
  return chosen(formatsOf(code).home, national)?.hasZero ?? false
}

const LONGEST_CODE = 3

/**
 * A number in E.164 as its own country writes it for others: `+33 6 12 55 09 18`. Told by its calling code alone, so
 * that it is light enough for every page; whether the number is valid is not looked at.
 */
export const writtenForOthers = (e164: string): string => writtenBy(internationalForm, e164)

/** A number in E.164 as it is written at home: `06 12 55 09 18`. The same is known of it. */
export const writtenAtHome = (e164: string): string => writtenBy(nationalForm, e164)

function writtenBy(form: (code: NumberForms, national: string) => string, e164: string): string {
  for (let length = 1; length <= LONGEST_CODE; length++) {
    const code = e164.slice(1, 1 + length)
    if (raw[code] !== undefined) return form(numberFormsOf(Number(code)), e164.slice(1 + length))
  }
  return e164
}
