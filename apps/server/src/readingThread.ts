import { prepareStep } from './bring/prepareStep'
import type { ReaderTask, ReaderWord } from './bring/readers'
import { type Database, openDatabase } from './db/database'
import { whatFailed } from './db/errors'
import { JobProblem } from './jobs/jobProblem'

let database: Database | null = null
/** One step at a time, which asks for one thing after the other. */
const CONNECTIONS = 2

/** Prepares one step of a batch; see `bring/readers`. */
export default async function read({ database: { url, patience }, batch, at, port }: ReaderTask): Promise<void> {
  database ??= openDatabase(url, { connections: CONNECTIONS, patience })
  const tell = (word: ReaderWord, moved: ArrayBuffer[] = []) => port.postMessage(word, moved)
  try {
    const step = await prepareStep(database, batch, at, (end) => tell({ kind: 'end', end }))
    tell({ kind: 'prepared', step }, buffersOf(step.copies))
  } catch (error) {
    tell(error instanceof JobProblem ? { kind: 'problem', code: error.code } : { kind: 'failed', ...whatFailed(error) })
  } finally {
    port.close()
  }
}

/** Bytes are handed over, not copied; small ones share memory with others and are. */
const buffersOf = (copies: readonly { readonly bytes: Uint8Array }[]): ArrayBuffer[] =>
  copies.flatMap(({ bytes: { buffer, byteLength } }) =>
    buffer instanceof ArrayBuffer && buffer.byteLength === byteLength ? [buffer] : [],
  )
