import { z } from 'zod'
import {
  Forgetting,
  NewSuppressionBatch,
  NewSuppressionEntries,
  SuppressionAdded,
  SuppressionBatch,
  SuppressionKind,
  SuppressionList,
  SuppressionPage,
  SuppressionRows,
  SuppressionRowsAdded,
  SuppressionScope,
} from '../suppression'
import { Id } from '../words'
import { endpoint, nothing, RowId } from './endpoint'

const OfSuppressionList = z.object({ suppressionListId: Id })
const OfSuppressionBatch = z.object({ suppressionBatchId: Id })

/** People who must not be contacted. */
export const suppressionEndpoints = {
  readSuppressionLists: endpoint('get', '/suppression-lists', 'Suppression lists', {
    response: z.array(SuppressionList),
  }),
  makeSuppressionList: endpoint('post', '/suppression-lists', 'Make a suppression list', {
    body: z.object({
      name: z.string().trim().min(1).max(100),
      kind: SuppressionKind,
      scope: SuppressionScope.default('all'),
    }),
    response: SuppressionList,
    role: 'operator',
    isIdempotent: true,
  }),
  readSuppressionEntries: endpoint('get', '/suppression-lists/{suppressionListId}/entries', 'Entries, newest first', {
    params: OfSuppressionList,
    query: z.object({ cursor: z.string().max(80).optional() }),
    response: SuppressionPage,
  }),
  addSuppressionEntries: endpoint('post', '/suppression-lists/{suppressionListId}/entries', 'Add people to a list', {
    params: OfSuppressionList,
    body: NewSuppressionEntries,
    scope: 'suppress',
    response: SuppressionAdded,
    role: 'operator',
    isIdempotent: true,
    sendsRows: true,
  }),
  readSuppressionBatches: endpoint('get', '/suppression-lists/{suppressionListId}/batches', 'Files, newest first', {
    params: OfSuppressionList,
    response: z.array(SuppressionBatch),
  }),
  announceSuppressionBatch: endpoint('post', '/suppression-lists/{suppressionListId}/batches', 'Announce a file', {
    params: OfSuppressionList,
    body: NewSuppressionBatch,
    response: SuppressionBatch,
    role: 'operator',
    isIdempotent: true,
  }),
  addSuppressionRows: endpoint('post', '/suppression-batches/{suppressionBatchId}/rows', 'Add rows of a file', {
    params: OfSuppressionBatch,
    body: SuppressionRows,
    response: SuppressionRowsAdded,
    role: 'operator',
    isIdempotent: true,
    sendsRows: true,
  }),
  takeSuppressionBack: endpoint('post', '/suppression-batches/{suppressionBatchId}/take-back', 'Take a file back', {
    params: OfSuppressionBatch,
    response: SuppressionBatch,
    role: 'operator',
    isIdempotent: true,
  }),
  dropSuppressionEntry: endpoint('delete', '/suppression-entries/{entryId}', 'Take an entry off its list', {
    params: z.object({ entryId: Id }),
    response: nothing,
    role: 'operator',
  }),
  suppressContact: endpoint('post', '/contacts/{contactId}/suppress', 'Put a contact on a suppression list', {
    params: z.object({ contactId: RowId }),
    body: z.object({ suppressionListId: Id, reason: z.string().trim().max(200).default('') }),
    response: SuppressionAdded,
    role: 'operator',
  }),
  suppressRefusals: endpoint(
    'post',
    '/lists/{listId}/suppress-refusals',
    'Suppress whose cells held a remark that says no',
    {
      params: z.object({ listId: Id }),
      body: z.object({ suppressionListId: Id }),
      response: SuppressionAdded,
      role: 'operator',
      isIdempotent: true,
    },
  ),
  readForgetting: endpoint('get', '/contacts/{contactId}/forgetting', 'What forgetting a person would erase', {
    params: z.object({ contactId: RowId }),
    response: Forgetting,
    role: 'operator',
  }),
  forgetPerson: endpoint('post', '/contacts/{contactId}/forgetting', 'Erase a person from all lists, for good', {
    params: z.object({ contactId: RowId }),
    response: Forgetting,
    role: 'operator',
    isIdempotent: true,
  }),
}
