import { z } from 'zod'
import { Job } from '../jobs'
import {
  AlsoIn,
  Decided,
  ListBeside,
  PairDecision,
  PairPage,
  PairState,
  SharedLines,
  Survivorship,
  Thresholds,
} from '../pair'
import { ByFilter, endpoint, Latest, OfList, RowId } from './endpoint'

/** Who is one person: what is joined by itself, and what a person decides. */
export const pairEndpoints = {
  readPairing: endpoint('get', '/lists/{listId}/pairing', 'How the contacts of a list are paired', {
    params: OfList,
    response: PairState,
  }),
  runPairing: endpoint('post', '/lists/{listId}/pairing', 'Look for contacts that are one person', {
    params: OfList,
    body: z.object({ thresholds: Thresholds }),
    response: Job,
    role: 'operator',
  }),
  changeSurvivorship: endpoint('put', '/lists/{listId}/survivorship', 'Whose values come first where rows are joined', {
    params: OfList,
    body: Survivorship,
    response: Job,
    role: 'operator',
  }),
  readPairs: endpoint('get', '/lists/{listId}/pairs', 'Pairs left to a person, likeliest first', {
    params: OfList,
    query: z.object({ cursor: z.string().max(60).optional() }),
    response: PairPage,
  }),
  readSharedLines: endpoint('get', '/lists/{listId}/shared-lines', 'Numbers that several people hold, with who', {
    params: OfList,
    query: z.object({ cursor: z.string().max(60).optional() }),
    response: SharedLines,
  }),
  readListsBeside: endpoint('get', '/lists/{listId}/beside', 'Who is in other lists too, and who is not', {
    params: OfList,
    response: z.array(ListBeside),
  }),
  readAlsoIn: endpoint('get', '/lists/{listId}/also-in', 'How many of a filter are in other lists too', {
    params: OfList,
    query: ByFilter,
    response: z.array(AlsoIn),
  }),
  decidePair: endpoint('post', '/pairs/{pairId}/decision', 'Join two contacts, or keep them apart', {
    params: z.object({ pairId: RowId }),
    body: PairDecision,
    response: Decided,
    role: 'operator',
  }),
  readDecided: endpoint('get', '/lists/{listId}/pair-decisions', 'What people decided, newest first', {
    params: OfList,
    query: Latest(20),
    response: z.array(Decided),
  }),
  takeDecisionBack: endpoint('post', '/pair-decisions/{decisionId}/take-back', 'Take a decision back, whole', {
    params: z.object({ decisionId: RowId }),
    response: Decided,
    role: 'operator',
  }),
}
