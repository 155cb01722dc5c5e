import { z } from 'zod'
import { Edition, NewEdition, Preflight } from '../send'
import { Id } from '../words'
import { ByFilter, endpoint, OfList } from './endpoint'

/** Files and audiences. */
export const sendEndpoints = {
  preflight: endpoint('get', '/lists/{listId}/send', 'What would be refused, and why', {
    params: OfList,
    query: ByFilter,
    response: Preflight,
  }),
  readEditions: endpoint('get', '/lists/{listId}/editions', 'Files and editions made so far', {
    params: OfList,
    response: z.array(Edition),
  }),
  makeEdition: endpoint('post', '/lists/{listId}/editions', 'Prepare an edition', {
    params: OfList,
    body: NewEdition,
    response: Edition,
    role: 'operator',
    isIdempotent: true,
  }),
  downloadEdition: endpoint('get', '/editions/{editionId}/file', 'Download a prepared file', {
    params: z.object({ editionId: Id }),
    response: 'file',
    role: 'operator',
  }),
}
