import { addressOf, type Batch, type ProblemDetails } from '@upper-field/contract'

export interface SendOptions {
  readonly onProgress: (share: number) => void
  /** Told while the connection is away, and again when it is back. */
  readonly onBroken?: (isBroken: boolean) => void
  readonly signal: AbortSignal
  /** Seconds before each new try after the connection broke; the last one is used again and again. */
  readonly waits?: readonly number[]
  readonly sendPart?: typeof sendPart
  readonly receivedOf?: typeof receivedOf
}

/** What came of sending a part of a file. */
export type PartOutcome =
  | { readonly status: 'sent' }
  | { readonly status: 'stopped' }
  /** The connection broke, or the server was busy: the rest can be sent. */
  | { readonly status: 'broken' }
  | { readonly status: 'refused'; readonly detail: string }

/** So often is tried again while not one more byte arrives. */
const MOST_TRIES = 12
const WAITS = [0.5, 1, 2, 5, 10]

/**
 * Streams a file to the server and tells how far it is. The browser reads it from the disk as it goes. Where the
 * connection breaks, the rest is sent as soon as it is back.
 * @returns null when all of it arrived, else a sentence saying what happened
 */
export async function sendFile(
  batchId: string,
  file: Blob,
  {
    onProgress,
    onBroken = () => {},
    signal,
    waits = WAITS,
    sendPart: send = sendPart,
    receivedOf: ask = receivedOf,
  }: SendOptions,
): Promise<string | null> {
  let offset = 0
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const told = (loaded: number) => onProgress(file.size === 0 ? 0 : (offset + loaded) / file.size)
    const outcome = await send(batchId, file, { offset, onLoaded: told, signal })
    if (outcome.status === 'sent') return null
    if (outcome.status === 'stopped') return 'Sending was stopped. What had arrived can be thrown away.'
    if (outcome.status === 'refused') return outcome.detail
    onBroken(true)
    await pause(waits[Math.min(tries, waits.length - 1)] ?? 1, signal)
    const received = await ask(batchId)
    if (received === 'all') return null
    if (received === null) continue
    if (received > offset) tries = 0
    offset = received
    onBroken(false)
  }
  return 'The connection broke and did not come back. Nothing of the file is shown: bring it in again, or throw it away.'
}

/** How much of a batch's file has arrived: in bytes, or all of it; null where the server cannot be asked. */
async function receivedOf(batchId: string): Promise<number | 'all' | null> {
  const response = await fetch(addressOf('readBatch', { params: { batchId } })).catch(() => null)
  if (!response?.ok) return null
  const batch = (await response.json()) as Batch
  return batch.jobId === null ? batch.received : 'all'
}

function sendPart(
  batchId: string,
  file: Blob,
  { offset, onLoaded, signal }: { offset: number; onLoaded: (loaded: number) => void; signal: AbortSignal },
): Promise<PartOutcome> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest()
    request.open('PUT', addressOf('sendContent', { params: { batchId }, query: { offset } }))
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.addEventListener('progress', ({ loaded }) => onLoaded(loaded))
    request.addEventListener('load', () => resolve(outcomeOf(request.status, request.responseText)))
    request.addEventListener('error', () => resolve({ status: 'broken' }))
    request.addEventListener('abort', () => resolve({ status: 'stopped' }))
    signal.addEventListener('abort', () => request.abort())
    request.send(offset === 0 ? file : file.slice(offset))
  })
}

/** Problems after which the same file goes on: the sending broke off, or another one of it is not over yet. */
const GOES_ON = new Set([
  'upload-broken',
  'upload-under-way',
  'offset-off',
  'too-slow',
  'too-many-uploads',
  'database-away',
])

/** What an answer to a part means. */
export function outcomeOf(status: number, body: string): PartOutcome {
  if (status < 300) return { status: 'sent' }
  const problem = problemIn(body)
  if (problem === null && status >= 500) return { status: 'broken' }
  if (problem && GOES_ON.has(problem.code)) return { status: 'broken' }
  return {
    status: 'refused',
    detail: problem?.detail ?? 'The application refused the file and gave no reason. Nothing was kept.',
  }
}

function problemIn(body: string): ProblemDetails | null {
  try {
    return JSON.parse(body) as ProblemDetails
  } catch {
    return null
  }
}

const pause = (seconds: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const timer = setTimeout(resolve, seconds * 1000)
    signal.addEventListener('abort', () => {
      clearTimeout(timer)
      resolve()
    })
  })
