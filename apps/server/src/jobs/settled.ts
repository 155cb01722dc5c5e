/** What came of those that came to something. */
export const succeeded = <T>(results: readonly PromiseSettledResult<T>[]): readonly T[] =>
  results.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))

/** The first of those that failed; undefined where none has. */
export const firstFailed = (results: readonly PromiseSettledResult<unknown>[]): PromiseRejectedResult | undefined =>
  results.find((one) => one.status === 'rejected')

/** Throws what it has thrown, where one has failed. */
export function throwFirst(results: readonly PromiseSettledResult<unknown>[]): void {
  const failed = firstFailed(results)
  if (failed) throw failed.reason
}
