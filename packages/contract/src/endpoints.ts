import { z } from 'zod'
import { Batch, BatchYield, HeldRow, KnownLayout, LetIn, LetInResult, MendedRow, NewBatch, SameFile } from './batches'
import { ContactPage, ContactStory } from './contacts'
import { Job } from './jobs'
import { List, ListChange, NewList, Piles } from './lists'
import {
  CheckEstimate,
  Connection,
  ConnectionChange,
  FillEstimate,
  FillPlan,
  FillResult,
  NewCheck,
  SpendLine,
} from './money'
import { Me, NewOwner, NewPerson, Setup } from './people'
import { Edition, NewEdition, Preflight } from './send'
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
} from './tidy'
import { ChangeCode, Id, type Role } from './words'

export interface Endpoint {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete'
  /** OpenAPI path template below `/api/v1`. */
  readonly path: string
  readonly summary: string
  readonly params: z.ZodObject
  readonly query: z.ZodObject
  /** `file` for a raw body. */
  readonly body: z.ZodType | 'file' | null
  readonly response: z.ZodType | 'file' | 'events'
  /** Least role that may call it; null for everybody. */
  readonly role: Role | null
  /** True where an Idempotency-Key header is kept: calls that spend or create. */
  readonly isIdempotent: boolean
}

function endpoint<
  P extends z.ZodObject = z.ZodObject<Record<never, never>>,
  Q extends z.ZodObject = z.ZodObject<Record<never, never>>,
  B extends z.ZodType | 'file' | null = null,
  R extends z.ZodType | 'file' | 'events' = 'file',
>(
  method: Endpoint['method'],
  path: string,
  summary: string,
  shape: { params?: P; query?: Q; body?: B; response: R; role?: Role | null; isIdempotent?: boolean },
) {
  return {
    method,
    path,
    summary,
    params: (shape.params ?? z.object({})) as P,
    query: (shape.query ?? z.object({})) as Q,
    body: (shape.body ?? null) as B,
    response: shape.response,
    role: shape.role === undefined ? ('viewer' as Role) : shape.role,
    isIdempotent: shape.isIdempotent ?? false,
  }
}

const OfList = z.object({ listId: Id })
const OfBatch = z.object({ batchId: Id })
const OfJob = z.object({ jobId: Id })
const ByFilter = z.object({ filter: z.string().max(2000).default('') })
const nothing = z.object({})

/** The whole API: the server serves it, the client calls it, OpenAPI describes it. */
export const endpoints = {
  readSetup: endpoint('get', '/setup', 'Whether the owner is still to be made', { response: Setup, role: null }),
  makeOwner: endpoint('post', '/setup', 'Make the owner, once', { body: NewOwner, response: Me, role: null }),
  enterDemo: endpoint('post', '/demo-sign-in', 'Enter the demo as its made-up operator', { response: Me, role: null }),
  readMe: endpoint('get', '/me', 'Who is signed in', { response: Me }),
  addPerson: endpoint('post', '/people', 'Add an account', { body: NewPerson, response: Me, role: 'owner' }),

  readLists: endpoint('get', '/lists', 'All lists', {
    query: z.object({ archived: z.enum(['yes', 'no']).default('no') }),
    response: z.array(List),
  }),
  makeList: endpoint('post', '/lists', 'Make a list', {
    body: NewList,
    response: List,
    role: 'operator',
    isIdempotent: true,
  }),
  readList: endpoint('get', '/lists/{listId}', 'One list with its terrace', { params: OfList, response: List }),
  changeList: endpoint('patch', '/lists/{listId}', 'Rename, archive or bring back', {
    params: OfList,
    body: ListChange,
    response: List,
    role: 'operator',
  }),
  readPiles: endpoint('get', '/lists/{listId}/piles', 'Counts of the sieve', {
    params: OfList,
    query: ByFilter,
    response: Piles,
  }),
  readContacts: endpoint('get', '/lists/{listId}/contacts', 'Contacts, by cursor', {
    params: OfList,
    query: ByFilter.extend({
      cursor: z.string().max(100).optional(),
      limit: z.coerce.number().int().min(1).max(500).default(100),
    }),
    response: ContactPage,
  }),
  readStory: endpoint('get', '/contacts/{contactId}', 'One contact with its story', {
    params: z.object({ contactId: z.coerce.number().int() }),
    response: ContactStory,
  }),
  takeApart: endpoint('delete', '/joins/{joinId}', 'Undo one join', {
    params: z.object({ joinId: z.coerce.number().int() }),
    response: nothing,
    role: 'operator',
  }),

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
    response: z.object({ cells: z.number().int() }),
    role: 'operator',
  }),
  makeEdits: endpoint('post', '/lists/{listId}/edits', 'Give values to contacts by hand', {
    params: OfList,
    body: NewEdits,
    response: Act,
    role: 'operator',
    isIdempotent: true,
  }),
  makeBulkEdit: endpoint('post', '/lists/{listId}/bulk-edits', 'Give one value to all chosen contacts', {
    params: OfList,
    body: BulkEdit,
    response: Job,
    role: 'operator',
    isIdempotent: true,
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

  readBatches: endpoint('get', '/lists/{listId}/batches', 'Batches of a list', {
    params: OfList,
    response: z.array(Batch),
  }),
  makeBatch: endpoint('post', '/lists/{listId}/batches', 'Announce a file with its mapping and source', {
    params: OfList,
    body: NewBatch,
    response: Batch,
    role: 'operator',
    isIdempotent: true,
  }),
  sendContent: endpoint('put', '/batches/{batchId}/content', 'Stream the file itself', {
    params: OfBatch,
    /** `wait=yes`: the file is kept, and read once its job is told to go on. */
    query: z.object({ wait: z.enum(['yes', 'no']).default('no') }),
    body: 'file',
    response: Batch,
    role: 'operator',
  }),
  readHeld: endpoint('get', '/batches/{batchId}/held', 'Rows that could not be read', {
    params: OfBatch,
    response: z.array(HeldRow),
    role: 'operator',
  }),
  downloadHeld: endpoint('get', '/batches/{batchId}/held.csv', 'The same rows as a file', {
    params: OfBatch,
    response: 'file',
    role: 'operator',
  }),

  mendHeld: endpoint('put', '/batches/{batchId}/held/{row}', 'Let a held row in, mended', {
    params: OfBatch.extend({ row: z.coerce.number().int().positive() }),
    body: MendedRow,
    response: Batch,
    role: 'operator',
  }),
  letInHeld: endpoint('post', '/batches/{batchId}/held', 'Let held rows of one reason in as they stand', {
    params: OfBatch,
    body: LetIn,
    response: LetInResult,
    role: 'operator',
  }),
  takeBatchBack: endpoint('post', '/batches/{batchId}/take-back', 'Take a batch back with its contacts and joins', {
    params: OfBatch,
    response: Batch,
    role: 'operator',
  }),
  bringBatchBack: endpoint('post', '/batches/{batchId}/bring-back', 'Bring a batch back that was taken back', {
    params: OfBatch,
    response: Batch,
    role: 'operator',
  }),
  throwAway: endpoint('delete', '/batches/{batchId}', 'Throw away a batch that was never shown', {
    params: OfBatch,
    response: nothing,
    role: 'operator',
  }),
  readYields: endpoint('get', '/lists/{listId}/yields', 'What became of each batch', {
    params: OfList,
    response: z.array(BatchYield),
  }),
  readLayout: endpoint('get', '/layouts/{key}', 'How files of this layout were brought in last time', {
    params: z.object({ key: z.string().max(80) }),
    response: KnownLayout,
  }),
  readSameFiles: endpoint('get', '/files/{fingerprint}', 'Batches brought in from the same file', {
    params: z.object({ fingerprint: z.string().max(100) }),
    response: z.array(SameFile),
  }),

  readJobs: endpoint('get', '/lists/{listId}/jobs', 'Latest jobs of a list', {
    params: OfList,
    response: z.array(Job),
  }),
  stopJob: endpoint('post', '/jobs/{jobId}/stop', 'Stop a job; what is done stays done', {
    params: OfJob,
    response: Job,
    role: 'operator',
  }),
  pauseJob: endpoint('post', '/jobs/{jobId}/pause', 'Pause a job after its current step', {
    params: OfJob,
    response: Job,
    role: 'operator',
  }),
  resumeJob: endpoint('post', '/jobs/{jobId}/resume', 'Go on where a job was stopped', {
    params: OfJob,
    response: Job,
    role: 'operator',
  }),
  watch: endpoint('get', '/events', 'Progress of jobs as server-sent events', { response: 'events' }),

  estimateCheck: endpoint('get', '/lists/{listId}/check', 'What a check would cost', {
    params: OfList,
    query: ByFilter,
    response: CheckEstimate,
  }),
  startCheck: endpoint('post', '/lists/{listId}/check', 'Check numbers with the register', {
    params: OfList,
    body: NewCheck,
    response: Job,
    role: 'operator',
    isIdempotent: true,
  }),
  estimateFill: endpoint('get', '/lists/{listId}/fill', 'What a fill could cost', {
    params: OfList,
    query: z.object({ order: z.string().max(300).default(''), checksLines: z.enum(['yes', 'no']).default('yes') }),
    response: FillEstimate,
  }),
  startFill: endpoint('post', '/lists/{listId}/fill', 'Ask providers for missing mobiles', {
    params: OfList,
    body: FillPlan,
    response: Job,
    role: 'operator',
    isIdempotent: true,
  }),
  readFills: endpoint('get', '/lists/{listId}/fills', 'Fill runs and what each provider gave', {
    params: OfList,
    response: z.array(FillResult),
  }),

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

  readConnections: endpoint('get', '/connections', 'Providers and the register', { response: z.array(Connection) }),
  changeConnection: endpoint('put', '/connections/{provider}', 'Set address and key', {
    params: z.object({ provider: z.string().max(40) }),
    body: ConnectionChange,
    response: Connection,
    role: 'owner',
  }),
  readSpend: endpoint('get', '/spend', 'Charges by provider and list', { response: z.array(SpendLine) }),
} satisfies Record<string, Endpoint>

export type Endpoints = typeof endpoints
export type EndpointName = keyof Endpoints
export type ParamsOf<N extends EndpointName> = z.input<Endpoints[N]['params']>
export type QueryOf<N extends EndpointName> = z.input<Endpoints[N]['query']>
export type BodyOf<N extends EndpointName> = Endpoints[N]['body'] extends z.ZodType
  ? z.input<Endpoints[N]['body']>
  : undefined
export type ResponseOf<N extends EndpointName> = Endpoints[N]['response'] extends z.ZodType
  ? z.output<Endpoints[N]['response']>
  : unknown
