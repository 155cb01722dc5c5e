import { type ApiClient, type Batch, isUnderWay, type Job, type NewBatch } from '@upper-field/contract'
import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { type ByteSource, type FileWishes, openFile, settingsOfFile, sourceOfBytes } from '@upper-field/files'

/** Announces a file with every suggestion taken, from its head. */
export async function announce(
  api: ApiClient,
  listId: string,
  { name, source }: { name: string; source: ByteSource },
  facts: Partial<NewBatch> = {},
  wishes: FileWishes = {},
): Promise<Batch> {
  const opened = await openFile(source, name, { country: facts.defaultCountry ?? null, ...wishes })
  if (opened.status === 'refused') throw new Error(FILE_PROBLEM_TEXT[opened.problem])
  const settings = settingsOfFile(opened, wishes)
  return api.call('makeBatch', {
    params: { listId },
    body: {
      name,
      fileName: name,
      bytes: source.size,
      ...settings,
      headings: [...settings.headings],
      notes: [...settings.notes],
      mapping: opened.table.suggestions.map(({ field }) => field),
      defaultCountry: null,
      sourceKind: 'other',
      gatheredOn: null,
      lawfulBasis: 'not-stated',
      note: '',
      price: null,
      ...facts,
    },
  })
}

interface LocalFile {
  readonly name: string
  readonly bytes: Uint8Array
}

/** Brings a file in the way a person does who takes every suggestion. */
export async function bringIn(
  api: ApiClient,
  listId: string,
  file: LocalFile,
  facts: Partial<NewBatch> = {},
  wishes: FileWishes = {},
): Promise<Batch> {
  const batch = await announce(api, listId, { name: file.name, source: sourceOfBytes(file.bytes) }, facts, wishes)
  const jobId = await send(api, batch.id, file)
  await untilEnded(api, listId, jobId)
  return (await api.call('readBatches', { params: { listId } })).find(({ id }) => id === batch.id) as Batch
}

/** Sends a file and leaves it waiting: it is read once its job is told to go on. */
export async function leaveWaiting(
  api: ApiClient,
  listId: string,
  file: LocalFile,
  facts: Partial<NewBatch>,
): Promise<void> {
  const batch = await announce(api, listId, { name: file.name, source: sourceOfBytes(file.bytes) }, facts)
  await send(api, batch.id, file, { wait: 'yes' })
}

/** Sends the file of a batch. @returns the job that reads it */
export async function send(
  api: ApiClient,
  batchId: string,
  { bytes }: LocalFile,
  query: { wait?: 'yes' } = {},
): Promise<string> {
  const body = bytes as Uint8Array<ArrayBuffer>
  const response = await api.raw('sendContent', { params: { batchId }, query, body })
  if (!response.ok) throw new Error(await response.text())
  return ((await response.json()) as Batch).jobId ?? ''
}

/** Waits until a job has ended, however. */
export async function untilEnded(api: ApiClient, listId: string, jobId: string, seconds = 600): Promise<Job> {
  for (let i = 0; i < seconds * 10; i++) {
    const job = (await api.call('readJobs', { params: { listId } })).find(({ id }) => id === jobId)
    if (job && !isUnderWay(job)) return job
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('the job did not end in time')
}
