/**
 * What is compared of a contact stands together: sixteen numbers, which a processor fetches at once. In columns, each of
 * them is fetched by itself, and that takes longer than to compare them.
 */
export type Cells = Int32Array

/** What a contact says in each of these is one number; 0 where it says nothing. */
export const SINGLE = [
  'name',
  'company',
  'domain',
  'profile',
  'city',
  'postalCode',
  'country',
  'street',
  'birth',
] as const
export type Single = (typeof SINGLE)[number]

/** Where each stands. Numbers and e-mails stand elsewhere, one contact's behind another's: from where, up to where. */
export const CELL = {
  name: 0,
  company: 1,
  domain: 2,
  profile: 3,
  city: 4,
  postalCode: 5,
  country: 6,
  street: 7,
  birth: 8,
  /** Number of its name, whatever the order of its words. 0 is no name. */
  nameKey: 9,
  numbersFrom: 10,
  numbersTo: 11,
  emailsFrom: 12,
  emailsTo: 13,
} as const
export type Cell = (typeof CELL)[keyof typeof CELL]

const WIDTH = 16

export const newCells = (contacts: number): Cells => new Int32Array(contacts * WIDTH)

export const cellAt = ({ cells }: { readonly cells: Cells }, at: number, cell: Cell): number =>
  cells[at * WIDTH + cell] as number

export const setCell = (cells: Cells, at: number, cell: Cell, value: number): void => {
  cells[at * WIDTH + cell] = value
}
