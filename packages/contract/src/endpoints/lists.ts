import { z } from 'zod'
import { CONTACT_SORTS, ContactPage, ContactStory } from '../contacts'
import { List, ListChange, NewList, Piles } from '../lists'
import { ByFilter, endpoint, nothing, OfList, RowId } from './endpoint'

/** Lists, their contacts, and what is told of them. */
export const listsEndpoints = {
  readLists: endpoint('get', '/lists', 'All lists', {
    query: z.object({ archived: z.enum(['yes', 'no']).default('no') }),
    scope: 'read',
    response: z.array(List),
  }),
  makeList: endpoint('post', '/lists', 'Make a list', {
    body: NewList,
    response: List,
    role: 'operator',
    isIdempotent: true,
  }),
  readList: endpoint('get', '/lists/{listId}', 'One list with its terrace', {
    params: OfList,
    scope: 'read',
    response: List,
  }),
  changeList: endpoint('patch', '/lists/{listId}', 'Rename, archive or bring back', {
    params: OfList,
    body: ListChange,
    response: List,
    role: 'operator',
  }),
  readPiles: endpoint('get', '/lists/{listId}/piles', 'Counts of the sieve', {
    params: OfList,
    // Of a large list an estimate is there at once; what is exact takes a second or more.
    query: ByFilter.extend({ estimate: z.enum(['yes', 'no']).default('no') }),
    scope: 'read',
    response: Piles,
  }),
  readColumns: endpoint('get', '/lists/{listId}/columns', 'Columns that became no field, as they are filtered by', {
    params: OfList,
    response: z.array(z.object({ key: z.string(), heading: z.string() })),
  }),
  readContacts: endpoint('get', '/lists/{listId}/contacts', 'Contacts, by cursor', {
    params: OfList,
    query: ByFilter.extend({
      cursor: z.string().max(100).optional(),
      limit: z.coerce.number().int().min(1).max(500).default(100),
      sort: z.enum(CONTACT_SORTS).default('row'),
    }),
    scope: 'read',
    response: ContactPage,
  }),
  readStory: endpoint('get', '/contacts/{contactId}', 'One contact with its story', {
    params: z.object({ contactId: RowId }),
    response: ContactStory,
  }),
  takeApart: endpoint('delete', '/joins/{joinId}', 'Undo one join', {
    params: z.object({ joinId: RowId }),
    response: nothing,
    role: 'operator',
  }),
}
