import { digitsOf } from './characters'

/** A form of dialling that has gone: digits without it, behind the country's own rules. */
interface OldForm {
  readonly written: RegExp
  readonly now: string
}

/**
 * Prefixes that a country has dropped or that only a carrier needs, by country. Sources: the Mexican regulator's
 * change of 3 August 2019 (01, 044, 045 and the 1 behind +52 fell away); ITU-T E.129 of Brazil (two digits of a
 * carrier behind the zero, written xx or ** where the writer leaves the choice); Argentina's 15 before mobiles, which
 * is a 9 behind +54; Chile's change of 2016 (the 09 of mobiles became 9) and Ukraine's 8 of before 2009.
 */
const FORMS: Readonly<Record<string, readonly OldForm[]>> = {
  MX: [
    { written: /^(?:01|044|045)(\d{10})$/, now: '$1' },
    { written: /^(?:\+?52)(?:1|01|044|045)(\d{10})$/, now: '+52$1' },
  ],
  BR: [{ written: /^(?:\+55)?0(\d{2})(\d{2}\d{8,9})$/, now: '$2' }],
  AR: [
    { written: /^(?:\+54)0?(\d{2,4})15(\d{6,8})$/, now: '+549$1$2' },
    { written: /^(?:0)?(\d{2,4})15(\d{6,8})$/, now: '+549$1$2' },
  ],
  CL: [{ written: /^(?:\+56)?09(\d{8})$/, now: '+569$1' }],
  UA: [{ written: /^80(\d{9})$/, now: '0$1' }],
}

const OPEN_CARRIER = /(?<!\d)0(?:xx|\*\*)(?=[\s)]*\(?\d{2})/i

/** A text without the room for a carrier's digits that was left open: `0xx11`, `(0**11)`. */
export const withoutOpenCarrier = (text: string): string => text.replace(OPEN_CARRIER, '')

/** Numbers of today that an old form may stand for; each is to be tried. */
export function* newForms(text: string, country: string | null): Generator<string> {
  const forms = country === null ? undefined : FORMS[country]
  if (forms === undefined) return
  const dialled = `${/^\W*\+/.test(text) ? '+' : ''}${digitsOf(text)}`
  for (const { written, now } of forms) if (written.test(dialled)) yield dialled.replace(written, now)
}
