/** What the next step of a job needs, read while the database stores the step before. */
export interface ReadAhead<T> {
  /** What was read for the step of a job that begins there; null where nothing was, or for another place. */
  take(jobId: string, at: number): Promise<T> | null
  /** Begins reading for the step that begins there. A failure meets whoever takes it, and nobody else. */
  begin(jobId: string, at: number, reading: Promise<T>): void
  drop(jobId: string): void
}

/** A job that rested in between reads anew, in milliseconds: what it would write may have changed meanwhile. */
export const FRESH = 5000

interface Reading<T> {
  readonly at: number
  readonly reading: Promise<T>
  readonly begun: number
}

/**
 * Lost in a crash, and read again.
 * @param now in milliseconds
 */
export function createReadAhead<T>(now: () => number = () => performance.now()): ReadAhead<T> {
  const ahead = new Map<string, Reading<T>>()
  return {
    take: (jobId, at) => {
      const found = ahead.get(jobId)
      ahead.delete(jobId)
      return found?.at === at && now() - found.begun <= FRESH ? found.reading : null
    },
    begin: (jobId, at, reading) => {
      reading.catch(() => {})
      ahead.set(jobId, { at, reading, begun: now() })
    },
    drop: (jobId) => {
      ahead.delete(jobId)
    },
  }
}
