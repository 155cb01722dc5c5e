/**
 * How many things are worked on in a second, one after another on this core: over all of them, again and again, for
 * the given time at least. Short rounds would tell more of the garbage of what ran before.
 */
export function perSecond<T>(things: readonly T[], work: (thing: T) => unknown, seconds = 0): number {
  const start = process.hrtime.bigint()
  let passes = 0
  let spent = 0
  do {
    for (const thing of things) work(thing)
    passes++
    spent = Number(process.hrtime.bigint() - start) / 1e9
  } while (spent < seconds)
  return (things.length * passes) / spent
}
