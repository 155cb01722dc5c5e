import type { Audience, AudienceDetail } from '@upper-field/contract'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { type Db, transaction } from '../db/database'
import { audiences, trials } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { createKeptAnswers, stampOfList } from '../lists/keptAnswers'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { asked, networkOf, told } from './askNetwork'
import { dropEverybody } from './audienceBooks'
import { countBehind, countsSoon, UNSEEN } from './audienceCounts'
import { describeAudience, findAudience, findOpenAudience } from './audienceDetail'
import { keepsOf, refuseEverybody, refuseForm, refuseSuppressionList, refuseUnfit, refuseWithin } from './audienceRules'
import { asDelivery, describeAudiences } from './describeAudiences'
import { audienceOf, findDestination } from './destinations'
import type { AudienceRow } from './difference'
import { lookAt } from './lookAt'
import { networkKeyRoutes } from './networkKeyRoutes'
import { asEdition } from './routes'
import { refuseUnderWay, startDelivery } from './startDelivery'
import { startPreparing } from './startPreparing'

/** Audiences: made, prepared, sent and looked after. */
export function audienceRoutes(app: Hono, services: CallServices): void {
  networkKeyRoutes(app, services)
  const { db } = services
  const kept = createKeptAnswers(stampOfList(db))
  const countSoon = countsSoon(services)

  const described = async ({ id, listId }: Pick<AudienceRow, 'id' | 'listId'>): Promise<Audience> => {
    await countSoon(listId)
    const [found] = await describeAudiences(db, eq(audiences.id, id))
    if (!found) throw notFound('audience')
    return found
  }

  const detailed = async ({ id, listId }: AudienceRow): Promise<AudienceDetail> => {
    await countSoon(listId)
    return describeAudience(db, id, { now: new Date(services.now()), kept })
  }

  serve(app, services, 'readAudiences', async ({ params }) => {
    await findList(db, params.listId)
    await countSoon(params.listId)
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
    if (!made) throw new Error('insert returned nothing')
    return described(made)
  })

  serve(app, services, 'readAudience', async ({ params }) => detailed(await findAudience(db, params.audienceId)))

  serve(app, services, 'changeAudience', async ({ params, body }) => {
    const audience = await findOpenAudience(db, params.audienceId)
    const { isWholeList = false, ...change } = body
    if (change.filter !== undefined) await refuseEverybody(db, audience.listId, change.filter, isWholeList)
    if (Object.keys(change).length > 0)
      await db
        .update(audiences)
        .set(change.filter === undefined ? change : { ...change, seenVersion: UNSEEN })
        .where(eq(audiences.id, audience.id))
    return described(audience)
  })

  serve(app, services, 'removeAudience', async ({ params }) => {
    const audience = await findAudience(db, params.audienceId)
    await refuseUnderWay(db, audience.id)
    if (audience.remoteId !== null) {
      const network = await networkOf(services, audience)
      await told(audience, network, () => network.remove(audience.remoteId ?? ''), ['no-such-audience'])
    }
    await transaction(services.pool, async (tx) => {
      await dropEverybody(tx, audience.id)
      await tx
        .update(audiences)
        .set({ removedAt: new Date(services.now()) })
        .where(eq(audiences.id, audience.id))
    })
    return {}
  })

  serve(app, services, 'prepareEdition', async ({ params, me }) => {
    const audience = await findOpenAudience(db, params.audienceId)
    const at = new Date(services.now())
    return asEdition(await transaction(services.pool, (tx) => startPreparing(tx, audience, { startedBy: me.name, at })))
  })

  serve(app, services, 'deliverEdition', async ({ params, body, me }) => {
    const audience = await findOpenAudience(db, params.audienceId)
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
    await countBehind(services, audience.listId)
    const made = await transaction(services.pool, (tx) =>
      startDelivery(tx, { audienceId: audience.id, editionId: null, startedBy: me.name }),
    )
    return asDelivery(made, await findDestination(db, audience.destination))
  })

  serve(app, services, 'lookAtAudience', async ({ params }) => {
    const audience = await findAudience(db, params.audienceId)
    await asked(() => lookAt(services, audience))
    return described(audience)
  })

  serve(app, services, 'startTrial', async ({ params, body }) => {
    const audience = await findOpenAudience(db, params.audienceId)
    if (audience.state !== 'usable' || audience.remoteId === null)
      throw new Problem(409, 'not-usable', 'Only an audience that is usable can be put in a campaign.')
    const network = await networkOf(services, audience)
    const { trial } = network.calls
    if (!trial) throw new Problem(422, 'no-trials', 'This network is not declared to run trials.')
    const aim = audience.purpose === 'exclude' ? [] : [audience.remoteId]
    const exclude = await remoteIdsOf(db, body.exclude, audience)
    // Asked again before it was noted, it is the same campaign: money is not spent twice.
    const key = `trial ${audience.id} ${await countTrials(db, audience.id)}`
    const remoteId = await told(audience, network, () =>
      network.makeBy(trial, { account: audience.accountId, aim, exclude, daily: body.daily, days: body.days }, key),
    )
    await db
      .insert(trials)
      .values({ audienceId: audience.id, remoteId, exclude: body.exclude, daily: body.daily, days: body.days })
    return detailed(audience)
  })

  serve(app, services, 'makeSimilar', async ({ params, body, me }) => {
    const audience = await findOpenAudience(db, params.audienceId)
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
    if (!made) throw new Error('insert returned nothing')
    return described(made)
  })
}

async function countTrials(db: Db, audienceId: string): Promise<number> {
  return (await db.select({ id: trials.id }).from(trials).where(eq(trials.audienceId, audienceId))).length
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
