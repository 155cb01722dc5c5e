import type { DirectoryPlan, DirectoryQuestion, DirectorySearch } from '@upper-field/contract'
import { mostForBusinesses, priceOf, RECORD_STATES, type RecordState } from '@upper-field/core/connect'
import { and, asc, desc, eq, gt, inArray, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { openDirectory } from '../connections/directoryClient'
import { type Db, transaction } from '../db/database'
import { directoryRecords, directorySearches } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { JobProblem } from '../jobs/jobProblem'
import { createJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'
import { termsOf } from './directoryJob'
import { findSearch, type SearchRow } from './findSearch'
import { textOf } from './judgeRecords'
import { knownOfList } from './known'

/** Businesses that are told of at once. */
const AT_ONCE = 200

export function directoryRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services

  serve(app, services, 'lookUpInDirectory', ({ params, query }) =>
    asked(async () => {
      const open = await openDirectory(services, params.provider)
      return (await open.lookUp(params.what, query.search)).map((one) => ({ ...one }))
    }),
  )

  serve(app, services, 'planDirectorySearch', async ({ params, body }) => {
    await findOpenList(db, params.listId)
    return planOf(services, params.listId, body)
  })

  serve(app, services, 'startDirectorySearch', async ({ params, body, me }) => {
    const list = await findOpenList(db, params.listId)
    const plan = await planOf(services, list.id, body)
    if (plan.total === plan.leftOut)
      throw new Problem(409, 'nothing-to-fetch', 'There is nobody there who is not known already. Nothing was paid.')
    const budget = Math.min(body.budget, plan.most)
    const made = await transaction(pool, async (tx) => {
      await refuseOverLimit(tx, budget)
      await refuseOverProviderLimit(tx, body.provider, budget)
      const { name, provider, trade, place } = body
      const [row] = await tx
        .insert(directorySearches)
        .values({
          listId: list.id,
          name,
          provider,
          trade,
          place,
          budget,
          price: plan.price,
          total: plan.total,
          madeBy: me.name,
        })
        .returning()
      if (!row) throw new Error('insert returned nothing')
      const job = await createJob(tx, {
        kind: 'directory',
        listId: list.id,
        unit: 'businesses',
        total: plan.total,
        payload: { searchId: row.id, agreed: budget, provider },
        startedBy: me.name,
      })
      await tx.update(directorySearches).set({ jobId: job.id }).where(eq(directorySearches.id, row.id))
      return { ...row, jobId: job.id }
    })
    return described(db, made)
  })

  serve(app, services, 'readDirectorySearches', async ({ params, query }) => {
    await findList(db, params.listId)
    const all = await db
      .select()
      .from(directorySearches)
      .where(eq(directorySearches.listId, params.listId))
      .orderBy(desc(directorySearches.madeAt))
      .limit(query.limit)
    return describe(db, all)
  })

  serve(app, services, 'readDirectorySearch', async ({ params }) =>
    described(db, await findSearch(db, params.searchId)),
  )

  serve(app, services, 'readDirectoryRecords', async ({ params, query, me }) => {
    const search = await findSearch(db, params.searchId)
    const isOf = query.state === undefined ? undefined : eq(directoryRecords.state, query.state)
    const rows = await db
      .select()
      .from(directoryRecords)
      .where(and(eq(directoryRecords.searchId, search.id), gt(directoryRecords.id, query.after), isOf))
      .orderBy(asc(directoryRecords.id))
      .limit(AT_ONCE)
    await services.callLimits.read(me.id, rows.length)
    return {
      records: rows.map(({ record, state, facts }) => ({
        record,
        state,
        name: textOf(facts, 'name'),
        number: textOf(facts, 'number'),
        email: textOf(facts, 'email'),
        site: textOf(facts, 'site'),
        address: textOf(facts, 'address'),
        city: textOf(facts, 'city'),
        headOffice: textOf(facts, 'headOffice'),
      })),
      next: rows.length === AT_ONCE ? (rows.at(-1)?.id ?? null) : null,
    }
  })
}

/** How many businesses there are, and at most what they cost. Asks the directory, which costs nothing. */
function planOf(services: CallServices, listId: string, question: DirectoryQuestion): Promise<DirectoryPlan> {
  return asked(async () => {
    const { provider, trade, place } = question
    const open = await openDirectory(services, provider)
    const { isInPart, ...known } = await knownOfList(services.db, { listId, provider, known: open.directory.known })
    const { total, leftOut, price } = await open.count({ trade: trade.code, place: place.code, ...known })
    const terms = termsOf(open.connector, price ?? priceOf(open.connector))
    return {
      total,
      leftOut,
      named: known.knownNumbers.length,
      isNamedInPart: isInPart,
      pricePer: terms.per,
      price: terms.price,
      calls: Math.ceil((total - leftOut) / terms.perPage),
      most: mostForBusinesses(terms, total - leftOut),
    }
  })
}

const WHY: Readonly<Record<string, string>> = {
  'no-connection': 'There is no key for this directory. An owner can set one under Providers.',
  'no-directory': 'This service is no directory of businesses.',
  'key-refused': 'The directory does not take its key any more. An owner can change it under Providers.',
  'odd-answer': 'The directory gave an answer that cannot be read.',
  'question-refused': 'The directory does not know such a trade or place. Look it up again.',
}

/** A directory that has no answer is said so to whoever asked. */
async function asked<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask()
  } catch (error) {
    if (!(error instanceof JobProblem)) throw error
    if (error.code === 'no-connection' || error.code === 'no-directory') throw notFoundBecause(error)
    const why = WHY[error.code] ?? 'The directory does not answer now; try again in a while.'
    throw new Problem(502, error.code, `${why} Nothing was paid.`, { cause: error })
  }
}

const notFoundBecause = ({ code }: JobProblem): Problem => {
  const why = WHY[code]
  return why ? new Problem(404, code, why) : notFound('directory')
}

async function described(db: Db, search: SearchRow): Promise<DirectorySearch> {
  const [one] = await describe(db, [search])
  if (!one) throw new Error('a search is gone')
  return one
}

const NONE_OF_EACH = Object.fromEntries(RECORD_STATES.map((state) => [state, 0])) as Record<RecordState, number>

async function describe(db: Db, searches: readonly SearchRow[]): Promise<DirectorySearch[]> {
  const ids = searches.map(({ id }) => id)
  const counted = await db
    .select({ id: directoryRecords.searchId, state: directoryRecords.state, n: sql<number>`count(*)::int` })
    .from(directoryRecords)
    .where(inArray(directoryRecords.searchId, ids))
    .groupBy(directoryRecords.searchId, directoryRecords.state)
  return searches.map(({ cursor: _, price: __, madeAt, ...search }) => ({
    ...search,
    madeAt: madeAt.toISOString(),
    became: {
      ...NONE_OF_EACH,
      ...Object.fromEntries(counted.filter(({ id }) => id === search.id).map(({ state, n }) => [state, n])),
    },
  }))
}
