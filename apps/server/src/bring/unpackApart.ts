import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { FileSettings, SheetFindings } from '@upper-field/files'
import { JobProblem } from '../jobs/runner'
import type { Limits } from '../limits'
import type { UnpackAnswer, UnpackQuestion } from '../unpackThread'

/** Beside the bundle; from the sources, as tests run them, the built one. */
const THREAD = join(
  import.meta.dirname,
  import.meta.dirname.endsWith('dist') ? 'unpackThread.js' : '../../dist/unpackThread.js',
)

export interface Unpacking {
  readonly bytes: Uint8Array
  readonly sheet: string
  readonly settings: FileSettings
  /** Told at the end: what was met while cells were read. */
  readonly findings: SheetFindings
}

/**
 * Unpacks a workbook that can only be read whole in a thread of its own with a memory limit. Where the thread runs out
 * of memory, or of time between two parts, this one job fails with a sentence, and nothing else does.
 */
export async function* unpackApart(
  { bytes, sheet, settings, findings }: Unpacking,
  limits: Limits,
): AsyncGenerator<Uint8Array> {
  const thread = new Worker(THREAD, { resourceLimits: { maxOldGenerationSizeMb: limits.unpackMegabytes } })
  try {
    for (let ask: unknown = { bytes, sheet, settings } satisfies UnpackQuestion; ; ask = 'more') {
      const answer = await answerOf(thread, ask, limits.unpackSeconds)
      if (answer.kind === 'refused') throw new JobProblem(answer.problem)
      if (answer.kind === 'done') {
        Object.assign(findings, answer.findings)
        return
      }
      yield answer.bytes
    }
  } finally {
    await thread.terminate()
  }
}

/** The next answer of the thread. Throws a job problem where it ends, or is silent for too long. */
function answerOf(thread: Worker, ask: unknown, seconds: number): Promise<UnpackAnswer> {
  return new Promise((resolve, reject) => {
    const tooLarge = () => reject(new JobProblem('too-large-for-format'))
    const timer = setTimeout(tooLarge, seconds * 1000)
    const settle = (then: () => void) => () => {
      clearTimeout(timer)
      thread.removeAllListeners()
      then()
    }
    thread.once('message', (answer: UnpackAnswer) => settle(() => resolve(answer))())
    thread.once('error', settle(tooLarge))
    thread.once('exit', settle(tooLarge))
    thread.postMessage(ask)
  })
}
