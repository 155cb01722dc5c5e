import { z } from 'zod'
import { Batch } from '../batches'
import {
  FindingDecision,
  Harvest,
  HarvestDetail,
  HarvestedSite,
  HarvestPlan,
  HarvestPlanned,
  KeptFormat,
  MarkedExample,
  NewHarvest,
  NumberFormat,
  TriedFormat,
} from '../harvest'
import { Id } from '../words'
import { endpoint, Latest, nothing, OfList } from './endpoint'

const OfHarvest = z.object({ harvestId: Id })
const OfSite = z.object({ site: z.string().max(300) })

/** Numbers and addresses from public pages. */
export const harvestEndpoints = {
  planHarvest: endpoint('post', '/lists/{listId}/harvests/plan', 'What reading pages would come to', {
    params: OfList,
    body: HarvestPlanned,
    response: HarvestPlan,
    role: 'operator',
    sendsRows: true,
  }),
  startHarvest: endpoint('post', '/lists/{listId}/harvests', 'Read pages for numbers and addresses', {
    params: OfList,
    body: NewHarvest,
    response: Harvest,
    role: 'operator',
    isIdempotent: true,
    sendsRows: true,
  }),
  readHarvests: endpoint('get', '/lists/{listId}/harvests', 'Pages that were read for a list', {
    params: OfList,
    query: Latest(50),
    response: z.array(Harvest),
  }),
  readHarvest: endpoint('get', '/harvests/{harvestId}', 'One reading of pages, site by site', {
    params: OfHarvest,
    response: HarvestDetail,
  }),
  readHarvestedSite: endpoint('get', '/harvests/{harvestId}/site', 'A site with its pages and what was found there', {
    params: OfHarvest,
    query: OfSite,
    response: HarvestedSite,
  }),
  decideFinding: endpoint(
    'put',
    '/harvests/{harvestId}/findings',
    'Take a value, drop it, or put another in its place',
    {
      params: OfHarvest,
      body: FindingDecision,
      response: nothing,
      role: 'operator',
    },
  ),
  readPagesAgain: endpoint('post', '/harvests/{harvestId}/again', 'Read those pages of a site again that failed', {
    params: OfHarvest,
    body: OfSite,
    response: z.object({ pages: z.number().int() }),
    role: 'operator',
  }),
  takeHarvest: endpoint('post', '/harvests/{harvestId}/batch', 'Make a batch of what was found', {
    params: OfHarvest,
    response: Batch,
    role: 'operator',
    isIdempotent: true,
  }),
  learnFormat: endpoint('post', '/harvests/{harvestId}/formats/example', 'The format an example on a page follows', {
    params: OfHarvest,
    body: MarkedExample,
    response: TriedFormat,
    role: 'operator',
  }),
  tryFormat: endpoint('post', '/harvests/{harvestId}/formats/try', 'What a format would find or lose', {
    params: OfHarvest,
    body: NumberFormat,
    response: TriedFormat,
    role: 'operator',
  }),
  keepFormat: endpoint('post', '/harvests/{harvestId}/formats', 'Keep a format, and read the pages with it', {
    params: OfHarvest,
    body: NumberFormat,
    response: nothing,
    role: 'operator',
  }),
  readFormats: endpoint('get', '/number-formats', 'Formats of numbers that were taught', {
    response: z.array(KeptFormat),
  }),
  dropFormat: endpoint('delete', '/number-formats/{name}', 'Forget a format', {
    params: z.object({ name: z.string().max(80) }),
    response: nothing,
    role: 'operator',
  }),
}
