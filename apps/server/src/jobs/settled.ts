/** What came of those that came to something. */
export const succeeded = <T>(results: readonly PromiseSettledResult<T>[]): readonly T[] =>
  results.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))

/** What the first that failed has thrown; null where none has. */
export function failureIn(results: readonly PromiseSettledResult<unknown>[]): unknown {
  return results.find((one) => one.status === 'rejected')?.reason ?? null
}

/** Throws it, where one has failed. */
export function throwFirst(results: readonly PromiseSettledResult<unknown>[]): void {
  const failure = failureIn(results)
  if (failure !== null) throw failure
}
