import { z } from 'zod'
import { CallSheet, NewCall } from '../calls'
import { LaneRule, LaneRules, Segment } from '../split'
import { Id } from '../words'
import { ByFilter, endpoint, nothing, OfList, RowId } from './endpoint'

/** Lanes, segments and the call sheet. */
export const splitEndpoints = {
  readCallSheet: endpoint('get', '/lists/{listId}/calls', 'Who is to be called, in order', {
    params: OfList,
    query: ByFilter,
    response: CallSheet,
  }),
  noteCall: endpoint('post', '/lists/{listId}/calls', 'Note what came of a call', {
    params: OfList,
    body: NewCall,
    response: z.object({ id: Id }),
    role: 'operator',
    isIdempotent: true,
  }),
  undoCall: endpoint('delete', '/calls/{callId}', 'Take back what came of a call', {
    params: z.object({ callId: Id }),
    response: nothing,
    role: 'operator',
  }),
  readLaneRules: endpoint('get', '/lists/{listId}/lanes', 'The rules of the lanes', {
    params: OfList,
    response: LaneRules,
  }),
  keepLaneRules: endpoint('put', '/lists/{listId}/lanes', 'Decide the lanes by own rules; null for the usual ones', {
    params: OfList,
    body: z.object({ rules: z.array(LaneRule).max(30).nullable() }),
    response: LaneRules,
    role: 'operator',
  }),
  placeByHand: endpoint('put', '/contacts/{contactId}/lane', 'Move a contact to a lane by hand; null to let it go', {
    params: z.object({ contactId: RowId }),
    body: z.object({ lane: z.string().max(40).nullable() }),
    response: z.object({ lane: z.string() }),
    role: 'operator',
  }),
  readSegments: endpoint('get', '/lists/{listId}/segments', 'Saved filters, with how many each means', {
    params: OfList,
    response: z.array(Segment),
  }),
  keepSegment: endpoint('post', '/lists/{listId}/segments', 'Save a filter by a name', {
    params: OfList,
    body: z.object({ name: z.string().trim().min(1).max(60), filter: z.string().max(2000) }),
    response: Segment,
    role: 'operator',
  }),
  removeSegment: endpoint('delete', '/segments/{segmentId}', 'Forget a saved filter', {
    params: z.object({ segmentId: Id }),
    response: nothing,
    role: 'operator',
  }),
}
