/** Begins work once all that was begun before has ended. Work that fails fails for whoever waits for it, and nobody else. */
export type Turn = <T>(work: () => Promise<T>) => Promise<T>

/** A connection answers one at a time: whoever shares one within a transaction takes turns. */
export function takingTurns(): Turn {
  let last: Promise<unknown> = Promise.resolve()
  return (work) => {
    const mine = last.then(work)
    last = mine.catch(() => {})
    return mine
  }
}

/**
 * Work that is done for all who ask for it: one is under way, and one waits. Whoever asks shares the one that waits, which
 * begins after they have asked.
 */
export function sharingTurns<T>(work: () => Promise<T>): () => Promise<T> {
  const turn = takingTurns()
  let waiting: Promise<T> | null = null
  return () => {
    waiting ??= turn(() => {
      waiting = null
      return work()
    })
    return waiting
  }
}

/** One page is read, one is made and one is written. */
const AT_ONCE = 3

/**
 * Works on some pages at once, so that this thread makes one while the database reads and writes others. After a failure
 * no page is begun any more; it is told once nothing is under way, so that nobody writes behind the back of a transaction
 * that is given up.
 */
export async function severalAtOnce<T>(
  pages: Iterable<T> | AsyncIterable<T>,
  work: (page: T) => Promise<void>,
  atOnce = AT_ONCE,
): Promise<void> {
  const waiting = iterate(pages)
  const failures: unknown[] = []
  const workOff = async () => {
    while (failures.length === 0) {
      const { done, value } = await waiting.next()
      if (done) return
      await work(value)
    }
  }
  await Promise.all(Array.from({ length: atOnce }, () => workOff().catch((cause) => failures.push(cause))))
  await waiting.return()
  if (failures.length > 0) throw failures[0]
}

async function* iterate<T>(pages: Iterable<T> | AsyncIterable<T>): AsyncGenerator<T, void> {
  yield* pages
}
