/** What the next step of a job needs, read while the database stores the step before. */
export interface ReadAhead<T> {
  /** What was read for the step of a job that begins there; null where nothing was, or for another place. */
  take(jobId: string, at: number): Promise<T> | null
  /** Begins reading for the step that begins there. A failure meets whoever takes it, and nobody else. */
  begin(jobId: string, at: number, reading: Promise<T>): void
  drop(jobId: string): void
}

/** Lost in a crash, and read again. */
export function createReadAhead<T>(): ReadAhead<T> {
  const ahead = new Map<string, { readonly at: number; readonly reading: Promise<T> }>()
  return {
    take: (jobId, at) => {
      const found = ahead.get(jobId)
      ahead.delete(jobId)
      return found?.at === at ? found.reading : null
    },
    begin: (jobId, at, reading) => {
      reading.catch(() => {})
      ahead.set(jobId, { at, reading })
    },
    drop: (jobId) => {
      ahead.delete(jobId)
    },
  }
}
