import type { Account, Audience } from '@upper-field/contract'
import {
  type Destination,
  datedName,
  fileNameFor,
  type NetworkAccount,
  refusalOf,
  whyNotFor,
} from '@upper-field/core/send'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { keyStaysWithItsAddress, refuseAddress } from '../connections/keptKeys'
import { seal } from '../connections/seal'
import { chosenContacts } from '../contacts/page'
import { readFilter, readWholeFilter } from '../contacts/readFilter'
import { type Db, transaction } from '../db/database'
import { audiences, destinationKeys, editions, suppressionLists, trials } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { JobProblem } from '../jobs/runner'
import { createJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { Services } from '../services'
import { describeAudience, findAudience } from './audienceDetail'
import { asDelivery, describeAudiences, toldRefusal } from './describeAudiences'
import { audienceOf, findDestination } from './destinations'
import type { AudienceRow } from './difference'
import { lookAt } from './lookAt'
import { type NetworkClient, NetworkRefused, openNetwork } from './networkClient'
import { markAllOwed } from './owedRemovals'
import { asEdition } from './routes'
import { startDelivery } from './startDelivery'

/** Audiences: made, prepared, sent and looked after. */
export function audienceRoutes(app: Hono, services: Services): void {
  keyRoutes(app, services)
  const { db } = services

  serve(app, services, 'readAudiences', async ({ params }) => {
    await findList(db, params.listId)
    await markAllOwed(services)
    return describeAudiences(db, and(eq(audiences.listId, params.listId), isNull(audiences.removedAt)) ?? sql`false`)
  })

  serve(app, services, 'makeAudience', async ({ params, body, me }) => {
    const list = await findOpenList(db, params.listId)
    const destination = await findDestination(db, body.destination)
    audienceOf(destination, body.takes)
    refuseForm(destination, body.form)
    if (!destination.network?.purposes[body.purpose])
      throw new Problem(422, 'purpose-off', `${destination.name} takes no audience for that.`)
    if (body.suppressionListId === null) await refuseEverybody(db, list.id, body.filter, body.isWholeList)
    else await refuseSuppressionList(db, body.suppressionListId, body.purpose)
    const keepsDays = keepsOf(destination, body.keepsDays)
    if (body.within !== null) await refuseWithin(db, body.within, body.destination, body.account.id)
    const { account, isWholeList: _, ...asked } = body
    const [made] = await transaction(services.pool, (tx) =>
      tx
        .insert(audiences)
        .values({
          ...asked,
          keepsDays,
          listId: list.id,
          accountId: account.id,
          accountName: account.name,
          madeBy: me.name,
        })
        .returning(),
    )
    return described(db, made?.id ?? '')
  })

  serve(app, services, 'readAudience', async ({ params }) =>
    describeAudience(db, params.audienceId, new Date(services.now())),
  )

  serve(app, services, 'changeAudience', async ({ params, body }) => {
    const audience = await findAudience(db, params.audienceId)
    const { isWholeList = false, ...change } = body
    if (change.filter !== undefined) await refuseEverybody(db, audience.listId, change.filter, isWholeList)
    if (Object.keys(change).length > 0) await db.update(audiences).set(change).where(eq(audiences.id, audience.id))
    return described(db, audience.id)
  })

  serve(app, services, 'removeAudience', async ({ params }) => {
    const audience = await findAudience(db, params.audienceId)
    if (audience.remoteId !== null) {
      const network = await networkOf(services, audience)
      await told(audience, network, () => network.remove(audience.remoteId ?? ''), ['no-such-audience'])
    }
    await db.execute(sql`delete from audience_members where audience_id = ${audience.id}`)
    await db
      .update(audiences)
      .set({ removedAt: new Date(services.now()) })
      .where(eq(audiences.id, audience.id))
    return {}
  })

  serve(app, services, 'prepareEdition', async ({ params, me }) => {
    const audience = await findAudience(db, params.audienceId)
    const list = await findOpenList(db, audience.listId)
    if (audience.similarTo)
      throw new Problem(409, 'made-there', 'The network has made this audience out of another: nothing is sent to it.')
    return transaction(services.pool, async (tx) => {
      const total = await countChosen(tx, audience)
      if (total === 0)
        throw new Problem(409, 'nobody-chosen', 'Nobody is chosen for this audience: parked contacts are left out.')
      const editionId = crypto.randomUUID()
      const job = await createJob(tx, {
        kind: 'prepare',
        listId: list.id,
        unit: 'contacts',
        total,
        payload: { editionId },
        startedBy: me.name,
      })
      const [made] = await tx
        .insert(editions)
        .values({
          id: editionId,
          listId: list.id,
          jobId: job.id,
          destination: audience.destination,
          takes: audience.takes,
          form: audience.form,
          filter: audience.filter,
          audienceId: audience.id,
          fileName: fileNameFor(
            datedName(audience.name, new Date(services.now())),
            `${audience.destination} ${audience.form}`,
            new Date(services.now()),
            'csv',
          ),
        })
        .returning()
      if (!made) throw new Error('insert returned nothing')
      return asEdition(made)
    })
  })

  serve(app, services, 'deliverEdition', async ({ params, body, me }) => {
    const audience = await findAudience(db, params.audienceId)
    await findOpenList(db, audience.listId)
    if (body.account !== audience.accountId)
      throw new Problem(
        409,
        'other-account',
        `This audience belongs to ${audience.accountName}. Nothing was sent to another account.`,
      )
    const destination = await findDestination(db, audience.destination)
    await refuseUnfit(services, audience, destination)
    const made = await transaction(services.pool, (tx) =>
      startDelivery(tx, { audienceId: audience.id, editionId: body.editionId, startedBy: me.name }),
    )
    return asDelivery(made, destination)
  })

  serve(app, services, 'deliverRemovals', async ({ params, me }) => {
    const audience = await findAudience(db, params.audienceId)
    await markAllOwed(services)
    const made = await transaction(services.pool, (tx) =>
      startDelivery(tx, { audienceId: audience.id, editionId: null, startedBy: me.name }),
    )
    return asDelivery(made, await findDestination(db, audience.destination))
  })

  serve(app, services, 'lookAtAudience', async ({ params }) => {
    const audience = await findAudience(db, params.audienceId)
    await asked(() => lookAt(services, audience))
    return described(db, audience.id)
  })

  serve(app, services, 'startTrial', async ({ params, body }) => {
    const audience = await findAudience(db, params.audienceId)
    if (audience.state !== 'usable' || audience.remoteId === null)
      throw new Problem(409, 'not-usable', 'Only an audience that is usable can be put in a campaign.')
    const network = await networkOf(services, audience)
    const { trial } = network.calls
    if (!trial) throw new Problem(422, 'no-trials', 'This network is not declared to run trials.')
    const aim = audience.purpose === 'exclude' ? [] : [audience.remoteId]
    const exclude = await remoteIdsOf(db, body.exclude, audience)
    const remoteId = await told(audience, network, () =>
      network.makeBy(
        trial,
        { account: audience.accountId, aim, exclude, daily: body.daily, days: body.days },
        `trial ${audience.id} ${crypto.randomUUID()}`,
      ),
    )
    await db
      .insert(trials)
      .values({ audienceId: audience.id, remoteId, exclude: body.exclude, daily: body.daily, days: body.days })
    return describeAudience(db, audience.id, new Date(services.now()))
  })

  serve(app, services, 'makeSimilar', async ({ params, body, me }) => {
    const audience = await findAudience(db, params.audienceId)
    if (audience.state !== 'usable' || audience.remoteId === null)
      throw new Problem(409, 'not-usable', 'Only an audience that is usable can be the seed of another.')
    const network = await networkOf(services, audience)
    const { similar } = network.calls
    if (!similar) throw new Problem(422, 'no-similar', 'This network is not declared to find similar people.')
    const { country, closeness, name } = body
    const values = { account: audience.accountId, audience: audience.remoteId, country, closeness, title: name }
    const remoteId = await told(audience, network, () =>
      network.makeBy(similar, values, `similar ${audience.id} ${country} ${closeness}`),
    )
    const [made] = await db
      .insert(audiences)
      .values({
        listId: audience.listId,
        name,
        destination: audience.destination,
        takes: audience.takes,
        form: audience.form,
        filter: '',
        purpose: 'aim',
        accountId: audience.accountId,
        accountName: audience.accountName,
        refreshDays: audience.refreshDays,
        removesByItself: false,
        remoteId,
        state: 'received',
        lookAt: new Date(services.now()),
        similarTo: { audienceId: audience.id, country, closeness },
        madeBy: me.name,
      })
      .returning()
    return described(db, made?.id ?? '')
  })
}

function keyRoutes(app: Hono, services: Services): void {
  const { db, config } = services

  serve(app, services, 'readDestinationKeys', async () =>
    (await db.select().from(destinationKeys).orderBy(destinationKeys.destination)).map(asKey),
  )
  serve(app, services, 'keepDestinationKey', async ({ params, body }) => {
    const destination = await findDestination(db, params.destinationId)
    if (!destination.network)
      throw new Problem(422, 'no-calls', `${destination.name} is not declared to be called: files are made for it.`)
    await refuseAddress(services, body.address)
    keyStaysWithItsAddress(null, { baseUrl: body.address, key: body.key })
    const kept = {
      address: body.address,
      sealedKey: seal(body.key, config.sealingSecrets[0]),
      changedAt: new Date(services.now()),
    }
    const [row] = await db
      .insert(destinationKeys)
      .values({ destination: destination.id, ...kept })
      .onConflictDoUpdate({ target: destinationKeys.destination, set: kept })
      .returning()
    if (!row) throw new Error('insert returned nothing')
    return asKey(row)
  })
  serve(app, services, 'removeDestinationKey', async ({ params }) => {
    await db.delete(destinationKeys).where(eq(destinationKeys.destination, params.destinationId))
    return {}
  })
  serve(app, services, 'readAccounts', async ({ params }) => {
    const destination = await findDestination(db, params.destinationId)
    const network = await asked(() => openNetwork(services, destination))
    return (await asked(() => network.accounts())).map((account) => accountOf(account, network))
  })
}

const asKey = ({ destination, address }: typeof destinationKeys.$inferSelect) => ({
  destination,
  address,
  hasKey: true,
})

const accountOf = ({ id, name, lacks }: NetworkAccount, { calls }: NetworkClient): Account => ({
  id,
  name,
  lacks: lacks.map((code) => ({ code, ...refusalOf(calls.refusals, code) })),
})

async function described(db: Db, audienceId: string): Promise<Audience> {
  const [found] = await describeAudiences(db, eq(audiences.id, audienceId))
  if (!found) throw notFound('audience')
  return found
}

const networkOf = async (services: Services, { destination }: AudienceRow): Promise<NetworkClient> => {
  const found = await findDestination(services.db, destination)
  return asked(() => openNetwork(services, found))
}

const WHY_NOT_ASKED: Readonly<Record<string, string>> = {
  'no-connection': 'There is no key for this network. An owner gives one under Destinations.',
  'key-unreadable': 'The key of this network cannot be opened. An owner gives it again under Destinations.',
  'key-refused': 'The network refuses our key. An owner gives another under Destinations.',
  'address-refused': 'The address of this network is not allowed.',
  'odd-answer': 'The network answered something that cannot be read.',
  'answer-too-late': 'The network did not answer in time. Try again in a while.',
  'provider-failed': 'The network is not there just now. Try again in a while.',
}

/** Asks a network now. What stops that is a problem in words. */
async function asked<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask()
  } catch (error) {
    if (!(error instanceof JobProblem)) throw error
    const why = WHY_NOT_ASKED[error.code] ?? 'The network cannot be asked just now.'
    throw new Problem(error.code === 'no-connection' ? 409 : 502, error.code, `${why} Nothing was sent.`, {
      cause: error,
    })
  }
}

/** The same where the network itself may say no. @param allowed codes that do not matter */
async function told<T>(
  { destination }: AudienceRow,
  { calls }: NetworkClient,
  ask: () => Promise<T>,
  allowed: readonly string[] = [],
): Promise<T> {
  try {
    return await asked(ask)
  } catch (error) {
    if (!(error instanceof NetworkRefused)) throw error
    if (allowed.includes(error.code)) return undefined as T
    const { says, remedy } = refusalOf(calls.refusals, error.code)
    throw new Problem(409, 'network-refused', `${destination}: ${says} ${remedy}`, { cause: error })
  }
}

/** What an account lacks is found before anything is sent. */
async function refuseUnfit(services: Services, audience: AudienceRow, destination: Destination): Promise<void> {
  const network = await networkOf(services, audience)
  const account = (await asked(() => network.accounts())).find(({ id }) => id === audience.accountId)
  const lack = account ? whyNotFor(network.calls, account, audience.purpose) : null
  const code = account ? lack?.code : 'no-such-account'
  if (code === undefined) return
  const { says, remedy, takes } = toldRefusal(destination, code)
  throw new Problem(
    409,
    'account-lacks',
    `${audience.accountName}: ${says} ${remedy}${takes ? ` That takes ${takes}.` : ''} Nothing was sent.`,
  )
}

function refuseForm({ hashing, name }: Destination, form: 'hashed' | 'plain'): void {
  if (hashing === 'always' && form === 'plain')
    throw new Problem(422, 'form-off', `${name} takes hashed identifiers only.`)
  if (hashing === 'never' && form === 'hashed')
    throw new Problem(422, 'form-off', `${name} takes no hashed identifiers.`)
}

/** Where membership lapses, how long it is to last; null where it does not. */
function keepsOf({ lapsesAfterDays, name }: Destination, asked: number | null): number | null {
  if (lapsesAfterDays === null) return null
  if (asked !== null && asked > lapsesAfterDays)
    throw new Problem(422, 'kept-too-long', `${name} keeps people for at most ${lapsesAfterDays} days.`)
  return asked ?? lapsesAfterDays
}

async function refuseWithin(db: Db, within: string, destination: string, account: string): Promise<void> {
  const outer = await findAudience(db, within)
  if (outer.destination !== destination || outer.takes !== 'companies' || outer.accountId !== account)
    throw new Problem(422, 'within-off', 'People are kept inside an audience of companies of the same account.')
}

async function refuseSuppressionList(db: Db, id: string, purpose: string): Promise<void> {
  const [list] = await db.select().from(suppressionLists).where(eq(suppressionLists.id, id))
  if (!list) throw notFound('suppression list')
  if (purpose !== 'exclude')
    throw new Problem(422, 'purpose-off', 'Entries of a suppression list can only be excluded, never aimed at.')
}

async function countChosen(db: Db, { listId, filter, suppressionListId }: AudienceRow): Promise<number> {
  const { rows } = await db.execute<{ n: string }>(
    suppressionListId === null
      ? sql`select count(*) as n from contacts where ${chosenContacts(listId, readFilter(filter))} and lane <> 'parked'`
      : sql`select count(distinct hash) as n from suppression_entries where suppression_list_id = ${suppressionListId} and key is not null`,
  )
  return Number(rows[0]?.n ?? 0)
}

/** A filter that chooses everybody is meant, or it is a slip that costs money. */
async function refuseEverybody(db: Db, listId: string, filter: string, isMeant: boolean): Promise<void> {
  const chosen = await readWholeFilter(db, listId, filter)
  if (isMeant) return
  const { rows } = await db.execute<{ some: string; all: string }>(sql`
    select count(*) filter (where ${chosenContacts(listId, chosen)}) as some, count(*) as all
    from contacts where ${chosenContacts(listId, readFilter(''))}`)
  const { some, all } = rows[0] ?? { some: '0', all: '0' }
  if (some === all && Number(all) > 0)
    throw new Problem(
      409,
      'whole-list',
      `This chooses everybody of the list: ${Number(all).toLocaleString('en')} contacts. Say that this is meant. Nothing was made.`,
    )
}

async function remoteIdsOf(db: Db, ids: readonly string[], { destination, accountId }: AudienceRow): Promise<string[]> {
  const found = await Promise.all(ids.map((id) => findAudience(db, id)))
  return found.map((one) => {
    if (one.destination !== destination || one.accountId !== accountId || one.remoteId === null)
      throw new Problem(422, 'exclude-off', 'Only audiences of the same account that were sent can be excluded.')
    if (one.state !== 'usable')
      throw new Problem(409, 'not-usable', `"${one.name}" is not usable yet: it can be excluded once it is matched.`)
    return one.remoteId
  })
}
