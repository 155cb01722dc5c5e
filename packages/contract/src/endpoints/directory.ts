import { z } from 'zod'
import {
  DirectoryPlan,
  DirectoryQuestion,
  DirectoryRecord,
  DirectorySearch,
  Named,
  NewDirectorySearch,
  RecordState,
} from '../directory'
import { Id } from '../words'
import { endpoint, Latest, OfList } from './endpoint'

const OfSearch = z.object({ searchId: Id })

/** Businesses of a trade at a place, from a directory. */
export const directoryEndpoints = {
  lookUpInDirectory: endpoint('get', '/directories/{provider}/{what}', 'Trades or places a directory knows', {
    params: z.object({ provider: z.string().max(40), what: z.enum(['trades', 'places']) }),
    query: z.object({ search: z.string().trim().min(1).max(100) }),
    response: z.array(Named),
    role: 'operator',
  }),
  planDirectorySearch: endpoint('post', '/lists/{listId}/directory/plan', 'How many businesses, and at most how much', {
    params: OfList,
    body: DirectoryQuestion,
    response: DirectoryPlan,
    role: 'operator',
  }),
  startDirectorySearch: endpoint('post', '/lists/{listId}/directory', 'Fetch businesses from a directory', {
    params: OfList,
    body: NewDirectorySearch,
    response: DirectorySearch,
    role: 'operator',
    isIdempotent: true,
  }),
  readDirectorySearches: endpoint('get', '/lists/{listId}/directory', 'What was fetched from directories', {
    params: OfList,
    query: Latest(50),
    response: z.array(DirectorySearch),
  }),
  readDirectorySearch: endpoint('get', '/directory/{searchId}', 'One search of a directory', {
    params: OfSearch,
    response: DirectorySearch,
  }),
  readDirectoryRecords: endpoint('get', '/directory/{searchId}/records', 'Businesses a directory told of', {
    params: OfSearch,
    query: z.object({ state: RecordState.optional(), after: z.coerce.number().int().min(0).default(0) }),
    response: z.object({ records: z.array(DirectoryRecord), next: z.number().int().nullable() }),
  }),
}
