/**
 * What is compared of a contact stands together: sixteen numbers, which a processor fetches at once. In columns, each of
 * them is fetched by itself, and that takes longer than to compare them.
 */
export type Cells = Int32Array

/**
 * Where each stands. What a contact says in one of the first is one number; 0 where it says nothing. Numbers and e-mails
 * stand elsewhere, one contact's behind another's: from where, up to where.
 */
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
  /** Two hashes over everything it holds. */
  hash: 14,
  otherHash: 15,
} as const
export type Cell = (typeof CELL)[keyof typeof CELL]

/** How many numbers stand together of each contact. */
export const WIDTH = 16

export const cellAt = ({ cells }: { readonly cells: Cells }, at: number, cell: Cell): number =>
  cells[at * WIDTH + cell] as number

export const setCell = (cells: Cells, at: number, cell: Cell, value: number): void => {
  cells[at * WIDTH + cell] = value
}

/**
 * Brings contacts into an order, where they stand: a copy would take as much room again.
 * @param order for each place, where its contact stands now; each once
 */
export function orderCells(cells: Cells, order: Int32Array): void {
  const isDone = new Uint8Array(order.length)
  const held = new Int32Array(WIDTH)
  for (let first = 0; first < order.length; first++) {
    if (isDone[first] === 1 || order[first] === first) continue
    // Round a circle: whoever stands at the first place goes to the last.
    held.set(cells.subarray(first * WIDTH, (first + 1) * WIDTH))
    let at = first
    for (let from = order[at] as number; from !== first; from = order[at] as number) {
      cells.copyWithin(at * WIDTH, from * WIDTH, (from + 1) * WIDTH)
      isDone[at] = 1
      at = from
    }
    cells.set(held, at * WIDTH)
    isDone[at] = 1
  }
}
