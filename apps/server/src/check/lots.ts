/** How a service is asked about many things: how many orders are open at once, and how many things are in each. */
export interface Lots {
  readonly orders: number
  readonly size: number
}

/** Orders of many that are open at once: whoever stops a check still pays for them. */
const MOST_ORDERS = 4
/** Questions about one that are open at once. */
const MOST_SINGLE = 20
/** A check is ordered in so many parts at least, so that its progress tells something; small ones in fewer. */
const PARTS = 50
const SMALL = 200

/**
 * Orders are the same for the same check, whenever it is looked at: one that was put and not written down is put again
 * under the same key.
 * @param most how many things the service takes in one order
 * @param atOnce how many calls it takes at a time
 * @param total how many things are to be asked about
 */
export function lotsOf({ most, atOnce }: { readonly most: number; readonly atOnce: number }, total: number): Lots {
  if (most === 1) return { orders: MOST_SINGLE, size: 1 }
  return { orders: Math.min(MOST_ORDERS, atOnce), size: Math.min(most, Math.max(SMALL, Math.ceil(total / PARTS))) }
}
