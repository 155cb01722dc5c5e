/**
 * Orders in runs of at most so many subjects, none of them parted: of an order that was settled in half the rest would be
 * asked about again under another key, and paid twice. One that is larger by itself is a run of its own.
 */
export function wholeOrders<T extends { readonly subjects: readonly unknown[] }>(
  orders: readonly T[],
  most: number,
): readonly (readonly T[])[] {
  const runs: T[][] = []
  let room = 0
  for (const order of orders) {
    const run = runs.at(-1)
    if (run && order.subjects.length <= room) run.push(order)
    else {
      runs.push([order])
      room = most
    }
    room -= order.subjects.length
  }
  return runs
}
