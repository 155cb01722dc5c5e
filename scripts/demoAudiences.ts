import type { ApiClient, Audience, BodyOf } from '@upper-field/contract'
import { untilEnded } from './bringIn'

const SEGMENTS: readonly (readonly [name: string, filter: string])[] = [
  ['Decision makers', 'level:owner,executive,head'],
  ['Mobiles in Britain and Ireland', 'country:GB,IE line:mobile'],
  ['German-speaking', 'country:DE,AT,CH'],
]
const UK_PINS = { id: '70-221', name: 'Wrenfold UK' }
const EU_POST = { id: '5090', name: 'Wrenfold EU' }

export interface DemoLists {
  readonly autumnId: string
  readonly homeId: string
  readonly customersId: string
}

/**
 * Lanes by the proposed rules, segments, audiences at each of the networks in different states, a trial, and two files:
 * all by the calls that the application's own views make.
 */
export async function makeAudiences(api: ApiClient, { autumnId, homeId, customersId }: DemoLists): Promise<void> {
  const { rules } = await api.call('readLaneRules', { params: { listId: autumnId } })
  await api.call('keepLaneRules', { params: { listId: autumnId }, body: { rules } })
  for (const [name, filter] of SEGMENTS)
    await api.call('keepSegment', { params: { listId: autumnId }, body: { name, filter } })
  const make = (listId: string, body: BodyOf<'makeAudience'>) => api.call('makeAudience', { params: { listId }, body })
  const terraces = await make(autumnId, {
    name: 'Autumn terraces',
    destination: 'brassbell',
    account: { id: 'bb-4410', name: 'Wrenfold UK' },
    filter: 'not country:US,CA',
  })
  const customers = await make(autumnId, {
    name: 'Customers, to exclude',
    destination: 'northpin',
    account: UK_PINS,
    purpose: 'exclude',
    suppressionListId: customersId,
    keepsDays: 1,
  })
  const reachable = await make(autumnId, {
    name: 'Mobiles in Britain and Ireland',
    destination: 'northpin',
    account: UK_PINS,
    filter: 'country:GB,IE line:mobile',
    keepsDays: 3,
  })
  const companies = await make(autumnId, {
    name: 'Their companies',
    destination: 'marlpost',
    takes: 'companies',
    account: EU_POST,
    isWholeList: true,
  })
  const buyers = await make(autumnId, {
    name: 'Buyers inside them',
    destination: 'marlpost',
    account: EU_POST,
    within: companies.id,
    filter: 'function:purchasing',
  })
  const homes = await make(homeId, {
    name: 'Home owners',
    destination: 'tallow',
    account: { id: 't.wren', name: 'Wrenfold UK' },
    isWholeList: true,
  })
  await send(api, [terraces, customers, reachable, companies])
  await send(api, [buyers])
  await prepare(api, homes)
  await untilTold(api, [terraces, customers, reachable, companies, buyers])
  await api.call('startTrial', {
    params: { audienceId: reachable.id },
    body: { daily: 8, days: 1, exclude: [customers.id] },
  })
  await makeFiles(api, autumnId)
}

const prepare = async (api: ApiClient, { id, listId }: Audience): Promise<string> => {
  const { id: editionId, jobId } = await api.call('prepareEdition', { params: { audienceId: id } })
  await untilEnded(api, listId, jobId)
  return editionId
}

async function send(api: ApiClient, audiences: readonly Audience[]): Promise<void> {
  for (const audience of audiences) {
    const editionId = await prepare(api, audience)
    const { jobId } = await api.call('deliverEdition', {
      params: { audienceId: audience.id },
      body: { editionId, account: audience.account.id },
    })
    if (jobId) await untilEnded(api, audience.listId, jobId)
  }
}

async function untilTold(api: ApiClient, audiences: readonly Audience[]): Promise<void> {
  for (const { id } of audiences) {
    for (;;) {
      const { state } = await api.call('lookAtAudience', { params: { audienceId: id } })
      if (state !== 'received' && state !== 'matching') break
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
  }
}

async function makeFiles(api: ApiClient, listId: string): Promise<void> {
  for (const filter of ['lane:text', 'lane:call']) {
    const { jobId } = await api.call('makeEdition', {
      params: { listId },
      body: { destination: 'people', form: 'people', filter },
    })
    await untilEnded(api, listId, jobId)
  }
}
