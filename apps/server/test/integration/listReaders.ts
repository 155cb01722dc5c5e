import type { ApiClient, Batch } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'

/** What is read of lists on a server in test after test. */
export const listReaders = (api: ApiClient) => ({
  listOf: (listId: string) => api.call('readList', { params: { listId } }),
  batchOf: async (listId: string, id: string) =>
    (await api.call('readBatches', { params: { listId } })).find((batch) => batch.id === id) as Batch,
  contactsOf: (listId: string, filter = '') =>
    api.call('readContacts', { params: { listId }, query: { filter } }).then(({ contacts }) => contacts),
  /** Waits until no job of the list is under way. */
  idle: async (listId: string) => {
    for (const job of await api.call('readJobs', { params: { listId } })) await untilEnded(api, listId, job.id)
  },
})
