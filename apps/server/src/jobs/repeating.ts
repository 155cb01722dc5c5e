/**
 * Does work again and again, so many milliseconds after it has ended: never twice at once, however long it takes.
 * @param work throws nothing: what goes wrong is its own to tell
 * @returns how to stop; what is under way then is not waited for
 */
export function repeating(work: () => Promise<unknown>, pause: number): () => void {
  let isStopped = false
  let clock: NodeJS.Timeout | undefined
  const turn = async (): Promise<void> => {
    await work()
    if (!isStopped) clock = setTimeout(() => void turn(), pause)
  }
  void turn()
  return () => {
    isStopped = true
    clearTimeout(clock)
  }
}
