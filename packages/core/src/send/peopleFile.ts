import { harmlessCell } from '../table'

/** A contact as it stands in a file that people open. */
export interface PersonLine {
  readonly fullName: string
  readonly company: string
  readonly title: string
  readonly numbers: readonly string[]
  readonly emails: readonly string[]
  readonly city: string
  readonly country: string
  readonly lane: string
  /** What they must not be reached by. */
  readonly notFor: readonly string[]
}

export const PEOPLE_HEADINGS = [
  'Name',
  'Company',
  'Title',
  'Number 1',
  'Number 2',
  'Number 3',
  'E-mail 1',
  'E-mail 2',
  'E-mail 3',
  'City',
  'Country',
  'Lane',
  'Not for',
] as const

/** Cells of one contact for a spreadsheet, none of which it would take for a formula. */
export function personCells(person: PersonLine): readonly string[] {
  const three = (values: readonly string[]) => [values[0] ?? '', values[1] ?? '', values[2] ?? '']
  return [
    person.fullName,
    person.company,
    person.title,
    ...three(person.numbers),
    ...three(person.emails),
    person.city,
    person.country,
    person.lane,
    person.notFor.join(', '),
  ].map(harmlessCell)
}
