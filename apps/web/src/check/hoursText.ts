import type { CheckSettings } from '@upper-field/contract'
import { countryName, shortened } from '../words/format'

type CallHours = CheckSettings['callHours']
type Hours = CallHours[string]

const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const
/** A week begins on Monday as it is written here. */
const WEEK = [1, 2, 3, 4, 5, 6, 0]

/** Hours for calls as lines of text: `DE 08:00–20:00 Mon–Sat`; a star stands for all other countries. */
export const writeHours = (hours: CallHours): string =>
  Object.entries(hours)
    .sort(([a], [b]) => (a === '*' ? -1 : b === '*' ? 1 : a.localeCompare(b)))
    .map(([country, { from, to, days }]) => `${country} ${clock(from)}–${clock(to)} ${daysText(days)}`)
    .join('\n')

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

/** Days as runs of the week: `Mon–Fri, Sun`. */
function daysText(days: readonly number[]): string {
  const runs: number[][] = []
  for (const [at, day] of WEEK.entries()) {
    if (!days.includes(day)) continue
    const run = runs.at(-1)
    if (run && WEEK[at - 1] === run.at(-1)) run.push(day)
    else runs.push([day])
  }
  return runs
    .map((run) =>
      run.length > 2 ? `${DAYS[run[0] ?? 0]}–${DAYS[run.at(-1) ?? 0]}` : run.map((day) => DAYS[day]).join(', '),
    )
    .join(', ')
}

/** Hours read from lines of text, or what is wrong with the first line that cannot be read. */
export function readHours(text: string): { readonly hours: CallHours } | { readonly problem: string } {
  const hours: CallHours = {}
  for (const line of text
    .split('\n')
    .map((one) => one.trim())
    .filter(Boolean)) {
    const read = readLine(line)
    if (read === null) return { problem: `“${shortened(line, 40)}” cannot be read. Write “DE 08:00–20:00 Mon–Sat”.` }
    if (hours[read.country])
      return { problem: `There are two lines for ${read.country}. A country has one, from the first hour to the last.` }
    hours[read.country] = read.hours
  }
  return hours['*'] ? { hours } : { problem: 'A line with * says what holds for all other countries.' }
}

function readLine(line: string): { readonly country: string; readonly hours: Hours } | null {
  const match = /^(\*|[a-z]{2})\s+(\d{1,2}(?::\d\d)?)\s*[-–]\s*(\d{1,2}(?::\d\d)?)\s+(.+)$/i.exec(line)
  const [, where = '', begins = '', ends = '', on = ''] = match ?? []
  const country = where.toUpperCase()
  const [from, to, days] = [minutesOf(begins), minutesOf(ends), readDays(on)]
  const isCountry = country === '*' || countryName(country) !== country
  if (!match || !isCountry || from === null || to === null || from >= to || days === null) return null
  return { country, hours: { from, to, days } }
}

function minutesOf(text: string): number | null {
  const [hours = '', minutes = '0'] = text.split(':')
  const all = Number(hours) * 60 + Number(minutes)
  return Number(minutes) < 60 && all <= 1440 ? all : null
}

/** Days by their first three letters, one by one or as runs; null where one of them is none. */
function readDays(text: string): number[] | null {
  const days = new Set<number>()
  for (const part of text.split(',').map((one) => one.trim())) {
    const [first = -1, last = first, ...more] = part.split(/\s*[-–]\s*/).map(dayOf)
    if (first === -1 || last === -1 || more.length > 0) return null
    for (let at = WEEK.indexOf(first); ; at = (at + 1) % WEEK.length) {
      days.add(WEEK[at] ?? 0)
      if (WEEK[at] === last) break
    }
  }
  return WEEK.filter((day) => days.has(day))
}

const dayOf = (name: string): number =>
  name.length < 2
    ? -1
    : DAYS.findIndex((day) => name.toLowerCase().startsWith(day.toLowerCase().slice(0, Math.min(3, name.length))))
