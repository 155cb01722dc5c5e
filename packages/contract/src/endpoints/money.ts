import { z } from 'zod'
import { ConnectorDocument } from '../connector'
import { LookedUp } from '../contacts'
import { Job } from '../jobs'
import {
  AnswerAges,
  CheckEstimate,
  CheckOf,
  CheckSettings,
  Connection,
  ConnectionChange,
  ConnectorTried,
  ConnectorTry,
  FillEstimate,
  FillPlan,
  FillResult,
  FillSample,
  LawfulRegions,
  NewCheck,
  ServiceStatement,
  SpendLine,
  SpendMonth,
  StandingFill,
  UsableLine,
} from '../money'
import { ContactTrail, TrailPage } from '../trail'
import { Id, Micros } from '../words'
import { ByFilter, endpoint, OfList } from './endpoint'

const OfProvider = z.object({ provider: z.string().max(40) })

/** What is paid for: checks, fills and the services behind them. */
export const moneyEndpoints = {
  estimateCheck: endpoint('get', '/lists/{listId}/check', 'What a check would cost', {
    params: OfList,
    query: ByFilter.extend({ of: CheckOf.default('numbers') }),
    response: CheckEstimate,
  }),
  readAnswerAges: endpoint('get', '/lists/{listId}/answer-ages', 'How old the answers are that are known, by country', {
    params: OfList,
    query: ByFilter.extend({ of: CheckOf.default('numbers') }),
    response: z.array(AnswerAges),
  }),
  startCheck: endpoint('post', '/lists/{listId}/check', 'Check numbers or addresses', {
    params: OfList,
    body: NewCheck,
    response: Job,
    role: 'operator',
    isIdempotent: true,
  }),
  lookUp: endpoint('post', '/look-up', 'Read one number or address, and tell what is known of it', {
    // In the body, not in the address: what is pasted is about people.
    body: z.object({ text: z.string().trim().min(1).max(500), country: z.string().length(2).nullable().default(null) }),
    response: LookedUp,
  }),
  readCheckSettings: endpoint('get', '/check-settings', 'How long answers count as fresh, and what messages cost', {
    response: CheckSettings,
  }),
  changeCheckSettings: endpoint(
    'put',
    '/check-settings',
    'Set how long answers count as fresh, and what messages cost',
    {
      body: CheckSettings,
      response: CheckSettings,
      role: 'owner',
    },
  ),
  estimateFill: endpoint('get', '/lists/{listId}/fill', 'What a fill could cost', {
    params: OfList,
    query: z.object({
      filter: z.string().max(2000).default(''),
      order: z.string().max(300).default(''),
      checksLines: z.enum(['yes', 'no']).default('yes'),
      notAgainDays: z.coerce.number().int().min(0).max(365).default(30),
      contactId: z.coerce.number().int().optional(),
      /** `FillOptions` as JSON. */
      options: z.string().max(6000).default('{}'),
    }),
    response: FillEstimate,
  }),
  startFill: endpoint('post', '/lists/{listId}/fill', 'Ask providers for missing mobiles', {
    params: OfList,
    body: FillPlan,
    response: Job,
    role: 'operator',
    isIdempotent: true,
  }),
  readStandingFill: endpoint(
    'get',
    '/lists/{listId}/standing-fill',
    'How new batches are filled; null for not at all',
    {
      params: OfList,
      response: StandingFill.nullable(),
    },
  ),
  changeStandingFill: endpoint('put', '/lists/{listId}/standing-fill', 'Say how new batches are filled', {
    params: OfList,
    body: StandingFill.omit({ changedBy: true }),
    response: StandingFill.nullable(),
    role: 'operator',
  }),
  readLawfulRegions: endpoint('get', '/lawful-regions', 'Where a lawful basis is needed before data is bought', {
    response: LawfulRegions,
  }),
  changeLawfulRegions: endpoint('put', '/lawful-regions', 'Say where a lawful basis is needed before data is bought', {
    body: LawfulRegions,
    response: LawfulRegions,
    role: 'owner',
  }),
  readFills: endpoint('get', '/lists/{listId}/fills', 'Fill runs and what each provider gave', {
    params: OfList,
    /** What providers gave for contacts of one country alone. */
    query: z.object({ country: z.string().length(2).optional() }),
    response: z.array(FillResult),
  }),
  readTrail: endpoint(
    'get',
    '/lists/{listId}/trail',
    'The course of each contact in the latest fill; null without one',
    {
      params: OfList,
      query: z.object({
        filter: z.string().max(2000).default(''),
        /** Providers and reasons, with commas between. */
        foundBy: z.string().max(500).default(''),
        because: z.string().max(500).default(''),
        cursor: z.string().max(200).optional(),
        limit: z.coerce.number().int().min(1).max(200).default(60),
      }),
      response: TrailPage.nullable(),
    },
  ),
  readContactTrail: endpoint(
    'get',
    '/contacts/{contactId}/trail',
    'What was asked about one contact; null for nothing',
    {
      params: z.object({ contactId: z.coerce.number().int() }),
      response: ContactTrail.nullable(),
    },
  ),
  takeCandidate: endpoint('post', '/attempts/{attemptId}/candidates/{position}/take', 'Take what was set aside', {
    params: z.object({ attemptId: Id, position: z.coerce.number().int().min(0).max(100) }),
    body: z.object({ agreed: Micros }),
    response: z.object({}),
    role: 'operator',
    isIdempotent: true,
  }),
  takeFillBack: endpoint('post', '/found/{fillId}/take-back', 'Take a found value out of its contact again', {
    params: z.object({ fillId: Id }),
    response: z.object({}),
    role: 'operator',
  }),
  readFillSample: endpoint(
    'get',
    '/lists/{listId}/fill-sample',
    'What the latest sample teaches; null where there is none',
    {
      params: OfList,
      query: z.object({ order: z.string().max(300).default(''), budget: z.coerce.number().int().min(0).optional() }),
      response: FillSample.nullable(),
    },
  ),
  readConnections: endpoint('get', '/connections', 'Providers and the register', { response: z.array(Connection) }),
  changeConnection: endpoint('put', '/connections/{provider}', 'Set address and key', {
    params: OfProvider,
    body: ConnectionChange,
    response: Connection,
    role: 'owner',
  }),
  readConnector: endpoint('get', '/connections/{provider}/connector', 'The document a service is declared by', {
    params: OfProvider,
    response: ConnectorDocument,
  }),
  keepConnector: endpoint('put', '/connections/{provider}/connector', 'Declare a service, or declare it otherwise', {
    params: OfProvider,
    body: ConnectorDocument,
    response: Connection,
    role: 'owner',
  }),
  removeConnection: endpoint('delete', '/connections/{provider}', 'Forget a service and its key', {
    params: OfProvider,
    response: z.object({}),
    role: 'owner',
  }),
  tryConnector: endpoint('post', '/connections/{provider}/try', 'Ask a service one question', {
    params: OfProvider,
    body: ConnectorTry,
    response: ConnectorTried,
    role: 'owner',
    isIdempotent: true,
  }),
  readSpendMonth: endpoint('get', '/spend/month', 'What was spent this month, and the most that may be', {
    response: SpendMonth,
  }),
  changeSpendLimit: endpoint('put', '/spend/month', 'Set the most that may be spent in a month; null for no limit', {
    body: z.object({ limit: Micros.nullable() }),
    response: SpendMonth,
    role: 'owner',
  }),
  changeProviderLimit: endpoint(
    'put',
    '/spend/month/{provider}',
    'Set the most that one service may charge in a month; null for no limit',
    {
      params: OfProvider,
      body: z.object({ limit: Micros.nullable() }),
      response: SpendMonth,
      role: 'owner',
    },
  ),
  readStatements: endpoint('get', '/spend/statements', 'What services say they have charged this month, beside ours', {
    response: z.array(ServiceStatement),
    role: 'operator',
  }),
  readUsable: endpoint('get', '/spend/usable', 'What usable values have cost, by day and service', {
    response: z.array(UsableLine),
  }),
  readSpend: endpoint('get', '/spend', 'Charges by day, provider, list and purpose', { response: z.array(SpendLine) }),
}
