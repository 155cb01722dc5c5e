import { type ApiClient, type Batch, isUnderWay, type Job, type NewBatch } from '@upper-field/contract'
import { openTable } from '@upper-field/core/table'

const HEAD = 262_144

/** Announces a file with every suggestion taken, from its first bytes. */
export function announce(
  api: ApiClient,
  listId: string,
  { name, head, size }: { name: string; head: Uint8Array; size: number },
  facts: Partial<NewBatch> = {},
): Promise<Batch> {
  const opened = openTable(head, { isWhole: size <= head.length, country: facts.defaultCountry ?? null })
  if (opened.status === 'refused') throw new Error(opened.problem)
  return api.call('makeBatch', {
    params: { listId },
    body: {
      name,
      fileName: name,
      bytes: size,
      ...opened.dialect,
      hasHeadings: opened.hasHeadings,
      headings: [...opened.headings],
      mapping: opened.suggestions.map(({ field }) => field),
      defaultCountry: null,
      sourceKind: 'other',
      gatheredOn: null,
      lawfulBasis: 'not-stated',
      note: '',
      ...facts,
    },
  })
}

/** Brings a file in the way a person does who takes every suggestion. */
export async function bringIn(
  api: ApiClient,
  listId: string,
  file: { name: string; bytes: Uint8Array },
  facts: Partial<NewBatch> = {},
): Promise<Batch> {
  const batch = await announce(
    api,
    listId,
    { ...file, head: file.bytes.subarray(0, HEAD), size: file.bytes.length },
    facts,
  )
  const response = await api.raw('sendContent', {
    params: { batchId: batch.id },
    body: file.bytes as Uint8Array<ArrayBuffer>,
  })
  if (!response.ok) throw new Error(await response.text())
  await untilEnded(api, listId, ((await response.json()) as Batch).jobId ?? '')
  return (await api.call('readBatches', { params: { listId } })).find(({ id }) => id === batch.id) as Batch
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
