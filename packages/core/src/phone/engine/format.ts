import type { CallingCode, PlanFormat } from './tables'

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
function formatsOf(code: CallingCode): Formats {
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
export function nationalForm(code: CallingCode, national: string): string {
  const format = chosen(formatsOf(code).home, national)
  return format ? national.replace(format.pattern, format.home) : national
}

/** A national number as it is written for others, behind its calling code. */
export function internationalForm(code: CallingCode, national: string): string {
  const format = chosen(formatsOf(code).abroad, national)
  return `${code.plus} ${format ? national.replace(format.pattern, format.form) : national}`
}

/** True where the country of this calling code writes the number with a zero dialled in front. */
export function isWrittenWithZero(code: CallingCode, national: string): boolean {
  if (code.trunk !== '0' || national.startsWith('0')) return false
  return chosen(formatsOf(code).home, national)?.hasZero ?? false
}
