import { z } from 'zod'
import { NewBatch } from '../batches'
import { Job } from '../jobs'
import {
  Act,
  AlikeFixes,
  BulkEdit,
  ChangedPage,
  HandPage,
  NewEdits,
  NewLeftOut,
  RoutineChange,
  RoutineName,
  RoutineShape,
  SavedRoutine,
  TidySample,
  TidyState,
} from '../tidy'
import { ChangeCode, Id } from '../words'
import { endpoint, nothing, OfList } from './endpoint'

/** Routines, what they changed, and what people change. */
export const tidyEndpoints = {
  readTidy: endpoint('get', '/lists/{listId}/tidy', 'The routine of a list and what it does', {
    params: OfList,
    response: TidyState,
  }),
  applyRoutine: endpoint('put', '/lists/{listId}/tidy', 'Tidy the whole list by a routine', {
    params: OfList,
    body: RoutineChange,
    response: Job,
    role: 'operator',
  }),
  readSample: endpoint('get', '/lists/{listId}/tidy/sample', 'Rows to try a routine on', {
    params: OfList,
    response: TidySample,
  }),
  readChanges: endpoint('get', '/lists/{listId}/tidy/changes', 'Values one repair has changed, was beside is', {
    params: OfList,
    query: z.object({ code: ChangeCode, cursor: z.string().max(40).optional() }),
    response: ChangedPage,
  }),
  readHand: endpoint('get', '/lists/{listId}/tidy/hand', 'Cells that need a person, the most promising first', {
    params: OfList,
    query: z.object({ cursor: z.string().max(40).optional() }),
    response: HandPage,
  }),
  fixAlike: endpoint('post', '/lists/{listId}/tidy/alike', 'Count, or mend, the cells with the same slip', {
    params: OfList,
    body: AlikeFixes,
    /** Many cells are mended by a job. */
    response: z.object({ cells: z.number().int(), job: Job.optional() }),
    role: 'operator',
  }),
  makeEdits: endpoint('post', '/lists/{listId}/edits', 'Give values to contacts by hand', {
    params: OfList,
    body: NewEdits,
    response: Act,
    role: 'operator',
    isIdempotent: true,
    sendsRows: true,
  }),
  makeBulkEdit: endpoint('post', '/lists/{listId}/bulk-edits', 'Give one value to all chosen contacts', {
    params: OfList,
    body: BulkEdit,
    response: Job,
    role: 'operator',
    isIdempotent: true,
    sendsRows: true,
  }),
  leaveOut: endpoint('post', '/lists/{listId}/left-out', 'Leave a repair out for one contact', {
    params: OfList,
    body: NewLeftOut.required({ contactId: true }),
    response: Act,
    role: 'operator',
    isIdempotent: true,
  }),
  leaveOutWidely: endpoint('post', '/lists/{listId}/left-out-widely', 'Leave a repair out for a batch or the list', {
    params: OfList,
    body: NewLeftOut.omit({ contactId: true }),
    response: Job,
    role: 'operator',
    isIdempotent: true,
  }),
  readBatchAnew: endpoint('put', '/batches/{batchId}/reading', 'Read a batch under another country or mapping', {
    params: z.object({ batchId: Id }),
    body: NewBatch.pick({ defaultCountry: true, mapping: true }),
    response: Job,
    role: 'operator',
    sendsRows: true,
  }),
  takeActBack: endpoint('post', '/acts/{actId}/take-back', 'Take back what a person has changed', {
    params: z.object({ actId: Id }),
    response: Job,
    role: 'operator',
  }),
  readRoutines: endpoint('get', '/routines', 'Routines saved by name', { response: z.array(SavedRoutine) }),
  saveRoutine: endpoint('put', '/routines', 'Save a routine by name; the same name again replaces it', {
    body: z.object({ name: RoutineName, routine: RoutineShape }),
    response: SavedRoutine,
    role: 'operator',
  }),
  dropRoutine: endpoint('delete', '/routines/{routineId}', 'Forget a saved routine', {
    params: z.object({ routineId: Id }),
    response: nothing,
    role: 'operator',
  }),
}
