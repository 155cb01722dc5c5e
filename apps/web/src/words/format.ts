import { writtenForOthers } from '@upper-field/core/written'

const grouped = new Intl.NumberFormat('en')
const decimals = (digits: number) =>
  new Intl.NumberFormat('en', { minimumFractionDigits: digits, maximumFractionDigits: digits })
const cents = decimals(2)
const tenthsOfCents = decimals(3)
const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const
const day = new Intl.DateTimeFormat('en-GB', DAY)
const utcDay = new Intl.DateTimeFormat('en-GB', { ...DAY, timeZone: 'UTC' })
const moment = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
  timeZoneName: 'short',
})
const countries = new Intl.DisplayNames(['en'], { type: 'region' })

/** The start of a text that is too long to be shown whole, with a sign that more follows. */
export const shortened = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most).replace(/[\uD800-\uDBFF]$/, '')}…` : text

/** A part of a whole, as 42 %. */
export const percent = (part: number): string => `${Math.round(part * 100)} %`

export const count = (n: number): string => grouped.format(n)
export const plural = (n: number, one: string, many = `${one}s`): string => `${count(n)} ${n === 1 ? one : many}`
/** Signed, with a real minus. */
export const signed = (n: number): string => (n < 0 ? `−${count(-n)}` : n > 0 ? `+${count(n)}` : count(0))
/** Millionths of a euro as money, to a cent; amounts below ten cents to a tenth of one where that tells more. */
export const money = (micros: number): string => {
  const euros = Math.abs(micros) / 1_000_000
  const isFine = micros % 10_000 !== 0 && euros < 0.1
  return `${micros < 0 ? '−' : ''}€${(isFine ? tenthsOfCents : cents).format(euros)}`
}
/** Unambiguous: 3 May 2026. */
export const date = (iso: string): string => day.format(new Date(iso))
/** A day that somebody has chosen, by UTC: the same wherever it is read. */
export const dayInUtc = (iso: string): string => utcDay.format(new Date(iso))
/** With its zone. */
export const time = (iso: string): string => moment.format(new Date(iso))
/** Seconds that are left, no finer than anybody wants to know. */
export const remaining = (seconds: number): string => (seconds < 100 ? `${seconds} s` : minutes(seconds))
/** A while in minutes, one at least; a longer one in hours. */
export const minutes = (seconds: number): string =>
  seconds < 5400 ? `${Math.max(1, Math.round(seconds / 60))} min` : `${count(Math.round(seconds / 3600))} h`
export const bytes = (n: number): string =>
  n < 1000 ? `${n} B` : n < 1_000_000 ? `${Math.round(n / 1000)} kB` : `${(n / 1_000_000).toFixed(1)} MB`
export const countryName = (code: string): string => {
  if (code === '' || code === 'none') return 'no country'
  try {
    return countries.of(code) ?? code
  } catch {
    return code
  }
}

/** A number in the grouping of its own country, as others are to dial it. */
export const phone = (e164: string): string => writtenForOthers(e164)

/** Stands before figures that are estimated. */
export const estimateSign = (isEstimate: boolean): string => (isEstimate ? '≈\u202f' : '')
