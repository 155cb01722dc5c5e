interface Waiting<K, V> {
  readonly keys: readonly K[]
  readonly resolve: (value: V) => void
  readonly reject: (error: unknown) => void
}

/**
 * Looks things up together. Whatever is asked for while a look is under way waits for the next one, which begins
 * after everything in it was asked for and looks all of it up at once: nobody is told what was read before they asked.
 * @param look looks many up at once; all who asked for some of them are given the same answer
 * @param most how many keys one look may have, but for a single asker with more
 */
export function together<K, V>(
  look: (keys: readonly K[]) => Promise<V>,
  { atOnce = 1, most = 500 } = {},
): (keys: readonly K[]) => Promise<V> {
  const line: Waiting<K, V>[] = []
  let underWay = 0
  const next = () => {
    while (underWay < atOnce && line.length > 0) {
      underWay++
      void lookFor(takeSome(line, most)).finally(() => {
        underWay--
        next()
      })
    }
  }
  async function lookFor(askers: readonly Waiting<K, V>[]): Promise<void> {
    try {
      const value = await look(askers.flatMap(({ keys }) => keys))
      for (const { resolve } of askers) resolve(value)
    } catch (error) {
      for (const { reject } of askers) reject(error)
    }
  }
  return (keys) =>
    new Promise((resolve, reject) => {
      line.push({ keys, resolve, reject })
      next()
    })
}

/** The first who wait, as long as they have no more keys together than that; always one. */
function takeSome<K, V>(line: Waiting<K, V>[], most: number): Waiting<K, V>[] {
  let keys = 0
  const end = line.findIndex((one, at) => {
    keys += one.keys.length
    return at > 0 && keys > most
  })
  return line.splice(0, end === -1 ? line.length : end)
}
