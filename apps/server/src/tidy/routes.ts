import type { Act, Job, Me } from '@upper-field/contract'
import { desc, eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { batches, routines } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { asJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { asAct, findAct, findActToTakeBack, type TidyChange } from './acts'
import { pageOfChanges } from './changesPage'
import { countAlike, pageOfHand } from './hand'
import { startTidy } from './startTidy'
import { columnsOf, tidySample, tidyState } from './state'
import { takeBackAtOnce } from './takeBackAtOnce'
import { makeChange } from './tidyAgain'

/** Of more contacts, or cells with one slip, a job makes the change, and tells how far it is. */
const MOST_AT_ONCE = 500

export function tidyRoutes(app: Hono, services: CallServices): void {
  const { db } = services

  serve(app, services, 'readTidy', ({ params }) => tidyState(db, params.listId))
  serve(app, services, 'readSample', async ({ params }) => {
    await findList(db, params.listId)
    return tidySample(db, params.listId)
  })
  serve(app, services, 'readChanges', ({ params, query }) =>
    pageOfChanges(db, { listId: params.listId, code: query.code, cursor: query.cursor }),
  )
  serve(app, services, 'readHand', ({ params, query }) => pageOfHand(db, params.listId, query.cursor))

  serve(app, services, 'applyRoutine', ({ params, body, me }) =>
    inJob(services, params.listId, { kind: 'routine', routine: body.routine, name: body.name }, me),
  )
  serve(app, services, 'leaveOutWidely', ({ params, body, me }) =>
    inJob(
      services,
      params.listId,
      { kind: 'leave-out', code: body.code, batchId: body.batchId ?? null, contactId: null },
      me,
    ),
  )
  serve(app, services, 'makeBulkEdit', async ({ params, body, me }) => {
    await mustHave(services, params.listId, [body.column])
    return inJob(services, params.listId, { kind: 'bulk-edit', ...body }, me)
  })
  serve(app, services, 'readBatchAnew', async ({ params, body, me }) => {
    const [batch] = await db.select().from(batches).where(eq(batches.id, params.batchId))
    if (!batch) throw notFound('batch')
    if (body.mapping.length !== batch.mapping.length)
      throw new Problem(422, 'mapping-off', `There must be ${batch.mapping.length} fields, one for each column.`)
    if (batch.state !== 'ready') throw new Problem(409, 'batch-not-ready', 'This batch has not been read to its end.')
    return inJob(services, batch.listId, { kind: 'reading', batchId: batch.id, ...body }, me)
  })
  serve(app, services, 'takeActBack', async ({ params, me, signal }) => {
    const act = await findActToTakeBack(db, params.actId)
    const isOfSome = act.contacts !== null && act.contacts <= MOST_AT_ONCE
    const done = isOfSome ? await takeBackAtOnce(services, act, { takenBackBy: me.name, signal }) : null
    return done ? asJob(done) : inJob(services, act.listId, { kind: 'take-back', actId: act.id }, me)
  })

  serve(app, services, 'makeEdits', async ({ params, body, ...caller }) => {
    await mustHave(
      services,
      params.listId,
      body.edits.map(({ column }) => column),
    )
    return atOnce(services, params.listId, { kind: 'edit', edits: body.edits }, caller)
  })
  serve(app, services, 'leaveOut', ({ params, body, ...caller }) =>
    atOnce(
      services,
      params.listId,
      { kind: 'leave-out', code: body.code, batchId: null, contactId: body.contactId },
      caller,
    ),
  )
  serve(app, services, 'fixAlike', async ({ params, body: { apply, ...slip }, ...caller }) => {
    const cells = await countAlike(db, params.listId, slip)
    if (!apply || cells === 0) return { cells }
    const change = { kind: 'mend-alike', slip } as const
    if (cells > MOST_AT_ONCE) return { cells, job: await inJob(services, params.listId, change, caller.me) }
    await atOnce(services, params.listId, change, caller)
    return { cells }
  })

  serve(app, services, 'readRoutines', async () =>
    (await db.select().from(routines).orderBy(desc(routines.savedAt))).map(asSaved),
  )
  serve(app, services, 'saveRoutine', async ({ body }) => {
    const [saved] = await db
      .insert(routines)
      .values(body)
      .onConflictDoUpdate({ target: routines.name, set: { routine: body.routine, savedAt: new Date(services.now()) } })
      .returning()
    if (!saved) throw new Error('insert returned nothing')
    return asSaved(saved)
  })
  serve(app, services, 'dropRoutine', async ({ params }) => {
    const gone = await db.delete(routines).where(eq(routines.id, params.routineId)).returning({ id: routines.id })
    if (gone.length === 0) throw notFound('routine')
    return {}
  })
}

const asSaved = (row: typeof routines.$inferSelect) => ({
  id: row.id,
  name: row.name,
  routine: row.routine,
  savedAt: row.savedAt.toISOString(),
})

/** A change that may touch the whole list: a job makes it. */
const inJob = async (services: CallServices, listId: string, change: TidyChange, me: Me): Promise<Job> =>
  asJob(await transaction(services.pool, (tx) => startTidy(tx, { listId, change, startedBy: me.name })))

/** A change of some contacts, made while its caller waits. */
async function atOnce(
  services: CallServices,
  listId: string,
  change: TidyChange,
  { me, signal }: Caller,
): Promise<Act> {
  await findOpenList(services.db, listId)
  return withListLock(services, listId, { work: 'edit', signal }, async (tx, client) => {
    const { actId } = await makeChange(tx, client, listId, change, me.name)
    return asAct(await findAct(tx, actId))
  })
}

/** Who asks for a change, and whether they still wait for it. */
interface Caller {
  readonly me: Me
  readonly signal: AbortSignal
}

async function mustHave(services: CallServices, listId: string, columns: readonly string[]): Promise<void> {
  const known = await columnsOf(services.db, listId)
  const gone = columns.filter((column) => !known.has(column))
  if (gone.length > 0) throw new Problem(422, 'column-gone', `No batch of this list has the column “${gone[0]}”.`)
}
