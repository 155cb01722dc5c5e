import { availableParallelism } from 'node:os'
import { pathToFileURL } from 'node:url'
import { MessageChannel, type MessagePort } from 'node:worker_threads'
import { builtProgram } from '../builtProgram'
import type { Config } from '../config'
import type { Patience } from '../db/database'
import { patienceOf } from '../db/patience'
import { JobProblem } from '../jobs/jobProblem'
import type { BatchRow } from '../projection/rowCells'
import type { PreparedStep, StepPlace } from './prepareStep'

/** Threads that read files: heavy work of the head, while another thread stores what they have made. */
export interface Readers {
  readonly threads: number
  /** The same as `prepareStep`, in one of them. */
  prepare(batch: BatchRow, at: StepPlace, onEnd: (end: StepPlace) => void): Promise<PreparedStep>
  close(): Promise<void>
}

/** What a reader is asked, and where it answers. */
export interface ReaderTask {
  /** Nothing else of the settings is given to it. */
  readonly database: { readonly url: string; readonly patience: Patience }
  readonly batch: BatchRow
  readonly at: StepPlace
  readonly port: MessagePort
}

/** What it answers: where the step ends, then the step, or why there is none. An error loses all but its words on the way. */
export type ReaderWord =
  | { readonly kind: 'end'; readonly end: StepPlace }
  | { readonly kind: 'prepared'; readonly step: PreparedStep }
  | { readonly kind: 'problem'; readonly code: string }
  | { readonly kind: 'failed'; readonly code: string | null; readonly message: string }

/** A reader nobody asks ends, in milliseconds: it holds some dozen megabytes. */
const IDLE = 20_000
const MEMORY = { maxOldGenerationSizeMb: 384, maxYoungGenerationSizeMb: 48 }

/** Cores that are the database's and the storing thread's: on two cores alone, readers would only take turns with these. */
const LEFT = 2

/** Threads are started when they are first asked for. @returns null where the machine has no core to spare for any */
export async function startReaders(config: Config): Promise<Readers | null> {
  const threads = config.readingThreads ?? Math.max(0, availableParallelism() - LEFT)
  if (threads === 0) return null
  const { Tinypool } = await import('tinypool')
  const database = { url: config.databaseUrl, patience: patienceOf(config, 'jobs') }
  const pool = new Tinypool({
    filename: pathToFileURL(builtProgram('readingThread.js')).href,
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: IDLE,
    resourceLimits: MEMORY,
    // A thread that sleeps so would not hear that its connection ends.
    useAtomics: false,
  })
  const waiting = new Set<(error: unknown) => void>()
  // A thread that could not even begin: whoever waits for it would wait without end.
  pool.on('error', (error: unknown) => {
    for (const giveUp of waiting) giveUp(error)
  })
  return {
    threads,
    prepare: (batch, at, onEnd) => {
      const { port1, port2 } = new MessageChannel()
      let giveUp: (error: unknown) => void = () => {}
      const step = new Promise<PreparedStep>((resolve, reject) => {
        giveUp = reject
        port1.on('message', (word: ReaderWord) => {
          if (word.kind === 'end') onEnd(word.end)
          else if (word.kind === 'prepared') resolve(word.step)
          else reject(errorOf(word))
        })
        const task: ReaderTask = { database, batch, at, port: port2 }
        // What it has to say comes by the port; here comes only that the thread ended.
        pool.run(task, { transferList: [port2] }).catch(reject)
      })
      waiting.add(giveUp)
      return step.finally(() => {
        waiting.delete(giveUp)
        port1.close()
      })
    },
    close: () => pool.destroy(),
  }
}

const errorOf = (word: Extract<ReaderWord, { kind: 'problem' | 'failed' }>): Error =>
  word.kind === 'problem' ? new JobProblem(word.code) : Object.assign(new Error(word.message), { code: word.code })
