import { FRESH } from '../jobs/readAhead'
import type { PreparedStep, StepPlace } from './prepareStep'

/** A step that is being prepared. */
export interface StepUnderWay {
  readonly at: StepPlace
  /** Where it ends is known long before it is ready. */
  readonly end: Promise<StepPlace>
  readonly prepared: Promise<PreparedStep>
}

/** How steps of a job are begun, and how many may be under way behind the one that is stored. */
export interface Preparing {
  readonly depth: number
  readonly hasMore: (at: StepPlace) => boolean
  readonly begin: (at: StepPlace) => StepUnderWay
}

export interface StepsAhead {
  /** The step that begins there, begun now unless it was before; those behind it are begun as their places are known. */
  take(jobId: string, at: StepPlace, preparing: Preparing): StepUnderWay
  drop(jobId: string): void
}

interface Queue {
  readonly steps: StepUnderWay[]
  last: StepUnderWay
  takenAt: number
  isWaiting: boolean
}

/** Begins a step, and parts what it tells early from what it ends with. A failure meets whoever takes it, and nobody else. */
export function beginStep(
  at: StepPlace,
  prepare: (at: StepPlace, onEnd: (end: StepPlace) => void) => Promise<PreparedStep>,
): StepUnderWay {
  let told: (end: StepPlace) => void = () => {}
  const known = new Promise<StepPlace>((resolve) => {
    told = resolve
  })
  const prepared = prepare(at, (end) => told(end))
  const end = Promise.race([known, prepared.then((step) => step.end)])
  for (const one of [prepared, end]) one.catch(() => {})
  return { at, end, prepared }
}

/**
 * Steps of jobs that are prepared while others are stored. Lost in a crash, and prepared again.
 * @param now in milliseconds
 */
export function createStepsAhead(now: () => number = () => performance.now()): StepsAhead {
  const queues = new Map<string, Queue>()

  function takenFrom(jobId: string, at: StepPlace): Queue | null {
    const queue = queues.get(jobId)
    const [first] = queue?.steps ?? []
    return queue && first?.at.offset === at.offset ? queue : null
  }

  /** Jobs that another process goes on with, or that rest, leave theirs behind. */
  function dropStale(): void {
    for (const [jobId, { takenAt }] of queues) if (now() - takenAt > FRESH) queues.delete(jobId)
  }

  async function goOn(jobId: string, queue: Queue, preparing: Preparing): Promise<void> {
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
