/** Questions of a first step, and of a step at most. */
const FIRST = 40
const MOST = 800
/** A step that takes longer than this is too long to be stopped at once; a much shorter one is not worth its writing. In milliseconds. */
const LONG = 2000
const SHORT = 700

const sizes = new Map<string, number>()

export interface StepSize {
  now(): number
  /** Learns from how long a step took, in milliseconds, with so many searches. */
  tookFor(time: number, searches: number): void
}

/** How many questions a step of a run is of: as many as are answered in about a second. */
export function stepSize(jobId: string): StepSize {
  const now = () => sizes.get(jobId) ?? FIRST
  return {
    now,
    tookFor: (time, searches) => {
      if (time > LONG) sizes.set(jobId, Math.max(FIRST, Math.round(now() / 2)))
      else if (time < SHORT && searches >= now()) sizes.set(jobId, Math.min(MOST, now() * 2))
    },
  }
}
