/** A step that is being prepared. */
export interface StepUnderWay<Place, Step> {
  readonly at: Place
  /** Where it ends is known long before it is ready. */
  readonly end: Promise<Place>
  readonly prepared: Promise<Step>
}

/** How steps of a job are begun, and how many may be under way behind the one that is stored. */
export interface Preparing<Place, Step> {
  readonly depth: number
  readonly hasMore: (at: Place) => boolean
  readonly begin: (at: Place) => StepUnderWay<Place, Step>
}

export interface StepsAhead<Place, Step> {
  /** The step that begins there, begun now unless it was before; those behind it are begun as their places are known. */
  take(jobId: string, at: Place, preparing: Preparing<Place, Step>): StepUnderWay<Place, Step>
  drop(jobId: string): void
}

interface Queue<Place, Step> {
  readonly steps: StepUnderWay<Place, Step>[]
  last: StepUnderWay<Place, Step>
  takenAt: number
  isWaiting: boolean
}

/** Begins a step, and parts what it tells early from what it ends with. A failure meets whoever takes it, and nobody else. */
export function beginStep<Place, Step extends { readonly end: Place }>(
  at: Place,
  prepare: (at: Place, onEnd: (end: Place) => void) => Promise<Step>,
): StepUnderWay<Place, Step> {
  let told: (end: Place) => void = () => {}
  const known = new Promise<Place>((resolve) => {
    told = resolve
  })
  const prepared = prepare(at, (end) => told(end))
  const end = Promise.race([known, prepared.then((step) => step.end)])
  for (const one of [prepared, end]) one.catch(() => {})
  return { at, end, prepared }
}

/** A job that rested in between has its steps prepared anew, in milliseconds: what they would store may have changed. */
const FRESH = 5000

/**
 * Steps of jobs that are prepared while others are stored. Lost in a crash, and prepared again.
 * @param offsetOf where a place is: two places of a job with the same are one
 * @param now in milliseconds
 */
export function createStepsAhead<Place, Step>(
  offsetOf: (at: Place) => number | string,
  now: () => number = () => performance.now(),
): StepsAhead<Place, Step> {
  const queues = new Map<string, Queue<Place, Step>>()

  function takenFrom(jobId: string, at: Place): Queue<Place, Step> | null {
    const queue = queues.get(jobId)
    const [first] = queue?.steps ?? []
    return queue && first && offsetOf(first.at) === offsetOf(at) ? queue : null
  }

  /** Jobs that another process goes on with, or that rest, leave theirs behind. */
  function dropStale(): void {
    for (const [jobId, { takenAt }] of queues) if (now() - takenAt > FRESH) queues.delete(jobId)
  }

  async function goOn(jobId: string, queue: Queue<Place, Step>, preparing: Preparing<Place, Step>): Promise<void> {
    if (queue.isWaiting) return
    queue.isWaiting = true
    while (queue.steps.length < preparing.depth) {
      const at = await queue.last.end.catch(() => null)
      // A queue that was dropped, or begun anew, is nobody's.
      if (at === null || queues.get(jobId) !== queue || !preparing.hasMore(at)) break
      queue.last = preparing.begin(at)
      queue.steps.push(queue.last)
    }
    queue.isWaiting = false
  }

  return {
    take: (jobId, at, preparing) => {
      dropStale()
      const known = takenFrom(jobId, at)
      const step = known?.steps.shift() ?? preparing.begin(at)
      const queue = known ?? { steps: [], last: step, takenAt: 0, isWaiting: false }
      queue.takenAt = now()
      queues.set(jobId, queue)
      void goOn(jobId, queue, preparing)
      return step
    },
    drop: (jobId) => {
      queues.delete(jobId)
    },
  }
}
