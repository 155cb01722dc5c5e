import { FillOptions, type LawfulRegions } from '@upper-field/contract'
import type { Hono } from 'hono'
import { type Db, transaction } from '../db/database'
import { lawfulRegions } from '../db/schema'
import { Problem } from '../http/problem'
import { serve } from '../http/serve'
import { createKeptAnswers, stampOfLists } from '../lists/keptAnswers'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { callbackRoutes } from './callbacks'
import { type EstimatedFill, estimateFill } from './estimate'
import { type PlanTerms, planOf } from './plan'
import { fillResults } from './results'
import { expectedOf, readFillSample } from './sample'
import { changeStandingFill, readStandingFill } from './standingFill'
import { startFill } from './startFill'
import { takeCandidate, takeFillBack } from './takeByHand'
import { readContactTrail, readTrail } from './trail'
import { type FillFor, fillForOf } from './wanting'

export function fillRoutes(app: Hono, services: CallServices): void {
  const { db } = services
  const kept = createKeptAnswers(stampOfLists(db))
  const estimate = (plan: PlanTerms, meant: FillFor): Promise<EstimatedFill> =>
    kept.of(meant.listId, ['fill', plan, meant], () => estimateFill(db, plan, meant))

  serve(app, services, 'estimateFill', async ({ params, query }) => {
    await findList(db, params.listId)
    const order = query.order.split(',').filter(Boolean)
    const options = readOptions(query.options)
    const plan = await planOf(db, { order, checksLines: query.checksLines === 'yes', options })
    const meant = fillForOf({ ...query, options, listId: params.listId, contactId: query.contactId ?? null })
    const estimated = await estimate(plan, meant)
    return { ...estimated, expected: await expectedOf(db, params.listId, order, estimated.wanting) }
  })

  serve(app, services, 'startFill', async ({ params, body, me }) => {
    const plan = { ...body, listId: params.listId }
    const estimated = await estimate(await planOf(db, body), fillForOf(plan))
    return transaction(services.pool, (tx) => startFill(tx, { ...plan, startedBy: me.name }, estimated))
  })

  serve(app, services, 'readStandingFill', async ({ params }) => {
    await findList(db, params.listId)
    return readStandingFill(db, params.listId)
  })
  serve(app, services, 'changeStandingFill', async ({ params, body, me }) => {
    await findOpenList(db, params.listId)
    await planOf(db, body.plan)
    return changeStandingFill(db, params.listId, { ...body, changedBy: me.name })
  })

  serve(app, services, 'readLawfulRegions', () => readLawfulRegions(db))
  serve(app, services, 'changeLawfulRegions', async ({ body }) => {
    const set = { countries: [...new Set(body.countries)].sort() }
    await db.insert(lawfulRegions).values(set).onConflictDoUpdate({ target: lawfulRegions.isOnly, set })
    return readLawfulRegions(db)
  })

  serve(app, services, 'readFillSample', async ({ params, query }) => {
    await findList(db, params.listId)
    return readFillSample(db, params.listId, query.order.split(',').filter(Boolean), query.budget ?? null)
  })

  serve(app, services, 'readTrail', async ({ params, query }) => {
    await findList(db, params.listId)
    const named = (text: string) => text.split(',').filter(Boolean)
    return readTrail(db, {
      ...query,
      listId: params.listId,
      foundBy: named(query.foundBy),
      because: named(query.because),
      cursor: query.cursor,
    })
  })
  serve(app, services, 'readContactTrail', ({ params }) => readContactTrail(db, params.contactId))
  serve(app, services, 'takeCandidate', async ({ params, body }) => {
    await takeCandidate(services, { ...params, ...body })
    return {}
  })
  serve(app, services, 'takeFillBack', async ({ params }) => {
    await takeFillBack(services, params.fillId)
    return {}
  })

  serve(app, services, 'readFills', ({ params, query }) => fillResults(db, params.listId, query.country ?? null))
  callbackRoutes(app, services)
}

async function readLawfulRegions(db: Db): Promise<LawfulRegions> {
  const [set] = await db.select().from(lawfulRegions)
  return { countries: set?.countries ?? [] }
}

/** Options of a plan as they stand in an address. */
function readOptions(text: string): FillOptions {
  const read = FillOptions.safeParse(parseJson(text))
  if (!read.success) throw new Problem(422, 'not-understood', 'The options of this plan cannot be read.')
  return read.data
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
