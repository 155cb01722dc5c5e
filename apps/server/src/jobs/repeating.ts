/**
 * Does work again and again, so many milliseconds after it has ended: never twice at once, however long it takes.
 * @param work throws nothing: what goes wrong is its own to tell
 * @returns how to stop, which waits for what is under way
 */
export function repeating(work: () => Promise<unknown>, pause: number): () => Promise<void> {
  let isStopped = false
  let clock: NodeJS.Timeout | undefined
  const turn = async (): Promise<void> => {
    await work()
    if (!isStopped)
      clock = setTimeout(() => {
        latest = turn()
      }, pause)
  }
  let latest = turn()
  return () => {
    isStopped = true
    clearTimeout(clock)
    return latest
  }
}
