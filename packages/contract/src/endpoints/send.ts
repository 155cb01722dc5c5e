import { TAKES } from '@upper-field/core/send'
import { z } from 'zod'
import { ContactLine } from '../contacts'
import { DestinationDocument } from '../destination'
import { Edition, KeptLayout, NewEdition, Preflight } from '../send'
import { Id } from '../words'
import { ByFilter, endpoint, nothing, OfList } from './endpoint'

const OfDestination = z.object({ destinationId: z.string().max(40) })

/** Files and audiences. */
export const sendEndpoints = {
  readDestinations: endpoint('get', '/destinations', 'Ad networks that audiences are prepared for', {
    response: z.array(DestinationDocument),
  }),
  readShippedDestinations: endpoint('get', '/shipped-destinations', 'Destinations that come with the application', {
    response: z.array(DestinationDocument),
  }),
  keepDestination: endpoint('put', '/destinations/{destinationId}', 'Declare a destination, or declare it otherwise', {
    params: OfDestination,
    body: DestinationDocument,
    response: DestinationDocument,
    role: 'owner',
  }),
  removeDestination: endpoint('delete', '/destinations/{destinationId}', 'Forget a destination; its files stay', {
    params: OfDestination,
    response: nothing,
    role: 'owner',
  }),
  preflight: endpoint('get', '/lists/{listId}/send', 'What would be refused, and why', {
    params: OfList,
    query: ByFilter.extend({
      destination: z.string().max(40),
      takes: z.enum(TAKES).default('people'),
      /** `yes` looks at everybody, however large the list. */
      exact: z.enum(['yes', 'no']).default('no'),
    }),
    response: Preflight,
  }),
  readFinding: endpoint('get', '/lists/{listId}/send/finding', 'Contacts that a finding of the preflight counts', {
    params: OfList,
    query: ByFilter.extend({
      destination: z.string().max(40),
      takes: z.enum(TAKES).default('people'),
      /** `ready`, `suppressed`, `nothing-to-match`, `missing` with a field, and so on. */
      finding: z.string().max(200),
      after: z.coerce.number().int().nonnegative().default(0),
    }),
    response: z.object({ contacts: z.array(ContactLine), next: z.number().int().nullable() }),
  }),
  readFileLayouts: endpoint('get', '/file-layouts', 'Layouts of files, kept by name', {
    response: z.array(KeptLayout),
  }),
  keepFileLayout: endpoint('put', '/file-layouts', 'Keep a layout of files by a name', {
    body: KeptLayout,
    response: KeptLayout,
    role: 'operator',
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
  describeEdition: endpoint('get', '/editions/{editionId}/datapackage', 'What a prepared file holds (Frictionless)', {
    params: z.object({ editionId: Id }),
    response: 'file',
    role: 'operator',
  }),
  downloadEdition: endpoint('get', '/editions/{editionId}/file', 'Download a prepared file', {
    params: z.object({ editionId: Id }),
    response: 'file',
    role: 'operator',
  }),
}
