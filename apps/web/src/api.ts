import { type BaseQueryFn, createApi } from '@reduxjs/toolkit/query/react'
import {
  addressOf,
  type CallInput,
  type ChangedPage,
  type ContactPage,
  type ContactSort,
  type EndpointName,
  endpoints,
  type HandPage,
  type PairPage,
  type ProblemDetails,
  type ResponseOf,
  type SharedLines,
  type SuppressionPage,
  type TrailPage,
} from '@upper-field/contract'
import type { ChangeCode } from '@upper-field/core/tidy'
import { watched } from './shell/waitingActs'

interface Sent {
  readonly name: EndpointName
  readonly input: object
  readonly key?: string
}

/** What went wrong, in words a person can act on. */
export interface CallProblem {
  readonly status: number
  readonly code: string
  readonly detail: string
}

/** Acts are told where they have to wait, and can be given up; what is only read is simply read. */
const callServer: BaseQueryFn<Sent, unknown, CallProblem> = (sent, { type, dispatch, signal }) =>
  type === 'mutation' ? watched(sent.name, dispatch, (giveUp) => answerTo(sent, giveUp)) : answerTo(sent, signal)

async function answerTo(
  { name, input, key }: Sent,
  signal: AbortSignal,
): Promise<{ data: unknown } | { error: CallProblem }> {
  const { body } = input as { body?: unknown }
  try {
    const response = await fetch(addressOf(name, input), {
      method: endpoints[name].method.toUpperCase(),
      signal,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(key ? { 'idempotency-key': key } : {}),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    if (response.ok) return { data: await response.json() }
    const problem = (await response.json().catch(() => null)) as ProblemDetails | null
    return {
      error: {
        status: response.status,
        code: problem?.code ?? 'unknown',
        detail: problem?.detail ?? 'The application gave no reason.',
      },
    }
  } catch {
    if (signal.aborted)
      return {
        error: { status: 0, code: 'given-up', detail: 'You gave up waiting. What had not begun by then is not done.' },
      }
    return {
      error: {
        status: 0,
        code: 'no-connection',
        detail: 'The application cannot be reached. Nothing was changed; try again.',
      },
    }
  }
}

/** Whose courses are read. */
interface TrailQuery {
  readonly listId: string
  readonly filter: string
  readonly foundBy: string
  readonly because: string
}

const TAGS = [
  'Routines',
  'Me',
  'People',
  'Sessions',
  'Lists',
  'List',
  'Batches',
  'Jobs',
  'Fills',
  'Editions',
  'Audiences',
  'Harvests',
  'Programs',
  'Automations',
  'Formats',
  'Keys',
  'Today',
  'Connections',
  'Destinations',
  'Calls',
  'Suppression',
  'Spend',
  'Check',
] as const
type Tag = (typeof TAGS)[number]

export const api = createApi({
  reducerPath: 'api',
  baseQuery: callServer,
  tagTypes: TAGS,
  endpoints: (build) => {
    const read = <N extends EndpointName>(name: N, ...tags: Tag[]) =>
      build.query<ResponseOf<N>, CallInput<N>>({ query: (input) => ({ name, input }), providesTags: tags })
    const change = <N extends EndpointName>(name: N, ...tags: Tag[]) =>
      build.mutation<ResponseOf<N>, CallInput<N>>({
        query: (input) => ({ name, input, ...(endpoints[name].isIdempotent ? { key: crypto.randomUUID() } : {}) }),
        invalidatesTags: tags,
      })
    return {
      readSetup: read('readSetup', 'Me'),
      makeOwner: change('makeOwner', 'Me'),
      enterDemo: change('enterDemo', 'Me'),
      readMe: read('readMe', 'Me'),
      readPeople: read('readPeople', 'People'),
      addPerson: change('addPerson', 'People'),
      changePerson: change('changePerson', 'People', 'Me'),
      removePerson: change('removePerson', 'People', 'Sessions'),
      changePassword: change('changePassword', 'Sessions'),
      readSessions: read('readSessions', 'Sessions'),
      endSession: change('endSession', 'Sessions', 'People'),
      readLists: read('readLists', 'Lists'),
      makeList: change('makeList', 'Lists'),
      readList: read('readList', 'List'),
      changeList: change('changeList', 'Lists', 'List'),
      readPiles: read('readPiles', 'List'),
      readColumns: read('readColumns', 'Batches'),
      readStory: read('readStory', 'List'),
      takeApart: change('takeApart', 'Lists', 'List'),
      readPairing: read('readPairing', 'List'),
      runPairing: change('runPairing', 'Jobs'),
      changeSurvivorship: change('changeSurvivorship', 'Jobs'),
      readAlsoIn: read('readAlsoIn', 'List'),
      readListsBeside: read('readListsBeside', 'List', 'Lists'),
      readSharedLines: build.infiniteQuery<SharedLines, { listId: string }, string | undefined>({
        query: ({ queryArg, pageParam }) => ({
          name: 'readSharedLines',
          input: { params: { listId: queryArg.listId }, query: { cursor: pageParam } },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last.next ?? undefined },
        providesTags: ['List'],
      }),
      readDecided: read('readDecided', 'List'),
      decidePair: change('decidePair', 'List', 'Lists'),
      takeDecisionBack: change('takeDecisionBack', 'List', 'Lists'),
      readSuppressionLists: read('readSuppressionLists', 'Suppression'),
      makeSuppressionList: change('makeSuppressionList', 'Suppression'),
      addSuppressionEntries: change('addSuppressionEntries', 'Suppression', 'List', 'Lists'),
      readSuppressionBatches: read('readSuppressionBatches', 'Suppression'),
      announceSuppressionBatch: change('announceSuppressionBatch'),
      addSuppressionRows: change('addSuppressionRows', 'Suppression', 'List', 'Lists'),
      takeSuppressionBack: change('takeSuppressionBack', 'Suppression', 'List', 'Lists'),
      dropSuppressionEntry: change('dropSuppressionEntry', 'Suppression', 'List', 'Lists'),
      suppressContact: change('suppressContact', 'Suppression', 'List', 'Lists'),
      suppressRefusals: change('suppressRefusals', 'Suppression', 'List', 'Lists'),
      readForgetting: read('readForgetting', 'List'),
      forgetPerson: change('forgetPerson', 'Suppression', 'List', 'Lists', 'Editions', 'Batches'),
      readSuppressionEntries: build.infiniteQuery<SuppressionPage, { suppressionListId: string }, string | undefined>({
        query: ({ queryArg, pageParam }) => ({
          name: 'readSuppressionEntries',
          input: { params: queryArg, query: { cursor: pageParam } },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last.next ?? undefined },
        providesTags: ['Suppression'],
      }),
      readTidy: read('readTidy', 'List'),
      readSample: read('readSample', 'Batches'),
      applyRoutine: change('applyRoutine', 'Jobs', 'List'),
      countAlike: change('fixAlike'),
      fixAlike: change('fixAlike', 'List', 'Lists'),
      makeEdits: change('makeEdits', 'List', 'Lists'),
      makeBulkEdit: change('makeBulkEdit', 'Jobs'),
      leaveOut: change('leaveOut', 'List', 'Lists'),
      readBatchAnew: change('readBatchAnew', 'Jobs', 'Batches'),
      leaveOutWidely: change('leaveOutWidely', 'Jobs'),
      takeActBack: change('takeActBack', 'Jobs'),
      readRoutines: read('readRoutines', 'Routines'),
      saveRoutine: change('saveRoutine', 'Routines'),
      dropRoutine: change('dropRoutine', 'Routines'),
      readChanges: build.infiniteQuery<ChangedPage, { listId: string; code: ChangeCode }, string | undefined>({
        query: ({ queryArg, pageParam }) => ({
          name: 'readChanges',
          input: { params: { listId: queryArg.listId }, query: { code: queryArg.code, cursor: pageParam } },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last.next ?? undefined },
        providesTags: ['List'],
      }),
      readPairs: build.infiniteQuery<PairPage, { listId: string }, string | undefined>({
        query: ({ queryArg, pageParam }) => ({
          name: 'readPairs',
          input: { params: { listId: queryArg.listId }, query: { cursor: pageParam } },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last.next ?? undefined },
        providesTags: ['List'],
      }),
      readHand: build.infiniteQuery<HandPage, { listId: string }, string | undefined>({
        query: ({ queryArg, pageParam }) => ({
          name: 'readHand',
          input: { params: { listId: queryArg.listId }, query: { cursor: pageParam } },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last.next ?? undefined },
        providesTags: ['List'],
      }),
      readBatches: read('readBatches', 'Batches'),
      makeBatch: change('makeBatch', 'Batches'),
      readHeld: read('readHeld', 'Batches'),
      mendHeld: change('mendHeld', 'Batches', 'List', 'Lists'),
      letInHeld: change('letInHeld', 'Batches', 'List', 'Lists'),
      takeBatchBack: change('takeBatchBack', 'Batches', 'Jobs'),
      bringBatchBack: change('bringBatchBack', 'Batches', 'Jobs'),
      throwAway: change('throwAway', 'Batches', 'List', 'Lists'),
      readYields: read('readYields', 'Batches', 'List'),
      readLayout: read('readLayout', 'Batches'),
      readSameFiles: read('readSameFiles', 'Batches'),
      readJobs: read('readJobs', 'Jobs'),
      pauseJob: change('pauseJob', 'Jobs'),
      stopJob: change('stopJob', 'Jobs'),
      resumeJob: change('resumeJob', 'Jobs'),
      lookUp: read('lookUp', 'Check', 'List'),
      readCheckSettings: read('readCheckSettings', 'Check'),
      changeCheckSettings: change('changeCheckSettings', 'Check', 'List'),
      estimateCheck: read('estimateCheck', 'List'),
      readAnswerAges: read('readAnswerAges', 'List'),
      startCheck: change('startCheck', 'Jobs', 'List'),
      estimateFill: read('estimateFill', 'List'),
      startFill: change('startFill', 'Jobs', 'Fills'),
      readStandingFill: read('readStandingFill', 'Fills'),
      changeStandingFill: change('changeStandingFill', 'Fills'),
      readLawfulRegions: read('readLawfulRegions', 'Check'),
      changeLawfulRegions: change('changeLawfulRegions', 'Check', 'List', 'Fills'),
      readContactTrail: read('readContactTrail', 'Fills'),
      takeCandidate: change('takeCandidate', 'Fills', 'List', 'Lists', 'Spend'),
      takeFillBack: change('takeFillBack', 'Fills', 'List', 'Lists'),
      readTrail: build.infiniteQuery<TrailPage | null, TrailQuery, string | undefined>({
        query: ({ queryArg: { listId, ...query }, pageParam }) => ({
          name: 'readTrail',
          input: { params: { listId }, query: { ...query, ...(pageParam ? { cursor: pageParam } : {}) } },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last?.next ?? undefined },
        providesTags: ['Fills', 'List'],
      }),
      readFills: read('readFills', 'Fills'),
      readLaneRules: read('readLaneRules', 'List'),
      keepLaneRules: change('keepLaneRules', 'List', 'Lists'),
      placeByHand: change('placeByHand', 'List', 'Lists'),
      readCallSheet: read('readCallSheet', 'List', 'Calls'),
      noteCall: change('noteCall', 'List', 'Lists', 'Calls', 'Suppression'),
      undoCall: change('undoCall', 'List', 'Lists', 'Calls', 'Suppression'),
      readSegments: read('readSegments', 'List'),
      keepSegment: change('keepSegment', 'List'),
      removeSegment: change('removeSegment', 'List'),
      readFileLayouts: read('readFileLayouts', 'Editions'),
      keepFileLayout: change('keepFileLayout', 'Editions'),
      preflight: read('preflight', 'List', 'Destinations'),
      readFinding: read('readFinding', 'List', 'Destinations'),
      readDestinations: read('readDestinations', 'Destinations'),
      readShippedDestinations: read('readShippedDestinations'),
      keepDestination: change('keepDestination', 'Destinations'),
      removeDestination: change('removeDestination', 'Destinations'),
      readEditions: read('readEditions', 'Editions'),
      makeEdition: change('makeEdition', 'Editions', 'Jobs'),
      readConnections: read('readConnections', 'Connections'),
      changeConnection: change('changeConnection', 'Connections'),
      readConnector: read('readConnector', 'Connections'),
      readFillSample: read('readFillSample', 'Fills'),
      keepConnector: change('keepConnector', 'Connections'),
      removeConnection: change('removeConnection', 'Connections'),
      tryConnector: change('tryConnector', 'Spend'),
      readStatements: read('readStatements', 'Spend'),
      readUsable: read('readUsable', 'Spend', 'Fills'),
      readSpend: read('readSpend', 'Spend'),
      readSpendMonth: read('readSpendMonth', 'Spend'),
      changeSpendLimit: change('changeSpendLimit', 'Spend'),
      changeProviderLimit: change('changeProviderLimit', 'Spend'),
      readContacts: build.infiniteQuery<
        ContactPage,
        { listId: string; filter: string; sort: ContactSort },
        string | undefined
      >({
        query: ({ queryArg, pageParam }) => ({
          name: 'readContacts',
          input: {
            params: { listId: queryArg.listId },
            query: { filter: queryArg.filter, sort: queryArg.sort, limit: 200, cursor: pageParam },
          },
        }),
        infiniteQueryOptions: { initialPageParam: undefined, getNextPageParam: (last) => last.next ?? undefined },
        providesTags: ['List'],
      }),
    }
  },
})

export const {
  useReadSetupQuery,
  useMakeOwnerMutation,
  useEnterDemoMutation,
  useReadMeQuery,
  useReadPeopleQuery,
  useAddPersonMutation,
  useChangePersonMutation,
  useRemovePersonMutation,
  useChangePasswordMutation,
  useReadSessionsQuery,
  useEndSessionMutation,
  useReadListsQuery,
  useMakeListMutation,
  useReadListQuery,
  useChangeListMutation,
  useReadPilesQuery,
  useReadColumnsQuery,
  useReadStoryQuery,
  useTakeApartMutation,
  useReadTidyQuery,
  useReadSampleQuery,
  useApplyRoutineMutation,
  useCountAlikeMutation,
  useFixAlikeMutation,
  useMakeEditsMutation,
  useMakeBulkEditMutation,
  useLeaveOutMutation,
  useLeaveOutWidelyMutation,
  useTakeActBackMutation,
  useReadRoutinesQuery,
  useSaveRoutineMutation,
  useDropRoutineMutation,
  useReadChangesInfiniteQuery,
  useAddSuppressionEntriesMutation,
  useReadSuppressionBatchesQuery,
  useAnnounceSuppressionBatchMutation,
  useAddSuppressionRowsMutation,
  useTakeSuppressionBackMutation,
  useDropSuppressionEntryMutation,
  useMakeSuppressionListMutation,
  useReadSuppressionEntriesInfiniteQuery,
  useReadSuppressionListsQuery,
  useSuppressContactMutation,
  useSuppressRefusalsMutation,
  useReadForgettingQuery,
  useForgetPersonMutation,
  useDecidePairMutation,
  useReadAlsoInQuery,
  useReadListsBesideQuery,
  useReadSharedLinesInfiniteQuery,
  useReadDecidedQuery,
  useReadPairingQuery,
  useReadPairsInfiniteQuery,
  useRunPairingMutation,
  useChangeSurvivorshipMutation,
  useTakeDecisionBackMutation,
  useReadHandInfiniteQuery,
  useReadBatchAnewMutation,
  useReadBatchesQuery,
  useMakeBatchMutation,
  useReadHeldQuery,
  useMendHeldMutation,
  useLetInHeldMutation,
  useTakeBatchBackMutation,
  useBringBatchBackMutation,
  useThrowAwayMutation,
  useReadYieldsQuery,
  useReadLayoutQuery,
  useReadSameFilesQuery,
  useReadJobsQuery,
  usePauseJobMutation,
  useStopJobMutation,
  useResumeJobMutation,
  useLookUpQuery,
  useReadCheckSettingsQuery,
  useChangeCheckSettingsMutation,
  useEstimateCheckQuery,
  useReadAnswerAgesQuery,
  useStartCheckMutation,
  useEstimateFillQuery,
  useStartFillMutation,
  useReadFillsQuery,
  useReadStandingFillQuery,
  useChangeStandingFillMutation,
  useReadLawfulRegionsQuery,
  useChangeLawfulRegionsMutation,
  useReadContactTrailQuery,
  useTakeCandidateMutation,
  useTakeFillBackMutation,
  useReadTrailInfiniteQuery,
  useKeepDestinationMutation,
  useKeepFileLayoutMutation,
  useReadFileLayoutsQuery,
  useNoteCallMutation,
  useReadCallSheetQuery,
  useUndoCallMutation,
  useKeepLaneRulesMutation,
  useKeepSegmentMutation,
  usePlaceByHandMutation,
  useReadLaneRulesQuery,
  useReadSegmentsQuery,
  useRemoveSegmentMutation,
  usePreflightQuery,
  useReadFindingQuery,
  useReadDestinationsQuery,
  useReadShippedDestinationsQuery,
  useRemoveDestinationMutation,
  useReadEditionsQuery,
  useMakeEditionMutation,
  useReadConnectionsQuery,
  useChangeConnectionMutation,
  useKeepConnectorMutation,
  useLazyReadConnectorQuery,
  useReadConnectorQuery,
  useReadFillSampleQuery,
  useRemoveConnectionMutation,
  useTryConnectorMutation,
  useReadStatementsQuery,
  useReadUsableQuery,
  useReadSpendQuery,
  useReadSpendMonthQuery,
  useChangeProviderLimitMutation,
  useChangeSpendLimitMutation,
  useReadContactsInfiniteQuery,
} = api

/** The sentence of a failed call, whatever shape the failure has. */
export function problemText(error: unknown): string {
  const detail = (error as CallProblem | undefined)?.detail
  return detail ?? 'Something failed. Nothing was changed; try again.'
}
