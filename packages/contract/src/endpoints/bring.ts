import { z } from 'zod'
import { Batch, BatchYield, HeldRow, KnownLayout, LetIn, LetInResult, MendedRow, NewBatch, SameFile } from '../batches'
import { endpoint, nothing, OfBatch, OfList } from './endpoint'

/** Batches: announced, sent, mended, taken back. */
export const bringEndpoints = {
  readBatches: endpoint('get', '/lists/{listId}/batches', 'Batches of a list', {
    params: OfList,
    scope: 'read',
    response: z.array(Batch),
  }),
  makeBatch: endpoint('post', '/lists/{listId}/batches', 'Announce a file with its mapping and source', {
    params: OfList,
    body: NewBatch,
    response: Batch,
    role: 'operator',
    isIdempotent: true,
    sendsRows: true,
  }),
  readBatch: endpoint('get', '/batches/{batchId}', 'One batch', { params: OfBatch, response: Batch }),
  sendContent: endpoint('put', '/batches/{batchId}/content', 'Stream the file itself', {
    params: OfBatch,
    /**
     * `wait=yes`: the file is kept, and read once its job is told to go on. `offset`: where in the file the body begins,
     * for one that broke off: `received` of its batch.
     */
    query: z.object({
      wait: z.enum(['yes', 'no']).default('no'),
      offset: z.coerce.number().int().nonnegative().default(0),
    }),
    body: 'file',
    response: Batch,
    role: 'operator',
  }),
  readHeld: endpoint('get', '/batches/{batchId}/held', 'Rows that could not be read', {
    params: OfBatch,
    response: z.array(HeldRow),
    role: 'operator',
  }),
  downloadHeld: endpoint('get', '/batches/{batchId}/held.csv', 'The same rows as a file', {
    params: OfBatch,
    response: 'file',
    role: 'operator',
  }),
  mendHeld: endpoint('put', '/batches/{batchId}/held/{row}', 'Let a held row in, mended', {
    params: OfBatch.extend({ row: z.coerce.number().int().positive() }),
    body: MendedRow,
    response: Batch,
    role: 'operator',
    sendsRows: true,
  }),
  letInHeld: endpoint('post', '/batches/{batchId}/held', 'Let held rows of one reason in as they stand', {
    params: OfBatch,
    body: LetIn,
    response: LetInResult,
    role: 'operator',
  }),
  takeBatchBack: endpoint('post', '/batches/{batchId}/take-back', 'Take a batch back with its contacts and joins', {
    params: OfBatch,
    response: Batch,
    role: 'operator',
  }),
  bringBatchBack: endpoint('post', '/batches/{batchId}/bring-back', 'Bring a batch back that was taken back', {
    params: OfBatch,
    response: Batch,
    role: 'operator',
  }),
  throwAway: endpoint('delete', '/batches/{batchId}', 'Throw away a batch that was never shown', {
    params: OfBatch,
    response: nothing,
    role: 'operator',
  }),
  readYields: endpoint('get', '/lists/{listId}/yields', 'What became of each batch', {
    params: OfList,
    response: z.array(BatchYield),
  }),
  readLayout: endpoint('get', '/layouts/{key}', 'How files of this layout were brought in last time', {
    params: z.object({ key: z.string().max(80) }),
    response: KnownLayout,
  }),
  readSameFiles: endpoint('get', '/files/{fingerprint}', 'Batches brought in from the same file', {
    params: z.object({ fingerprint: z.string().max(100) }),
    response: z.array(SameFile),
  }),
}
