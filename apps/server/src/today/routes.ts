import { todayOf } from '@upper-field/core/today'
import { eq, isNull } from 'drizzle-orm'
import type { Hono } from 'hono'
import { pageOfContacts } from '../contacts/page'
import { calendars, lists } from '../db/schema'
import { notFound } from '../http/problem'
import { serve } from '../http/serve'
import { countsSoon } from '../send/audienceCounts'
import type { CallServices } from '../services'
import { calendarOf, makeSecret, ownerOfSecret } from './calendar'
import { factsOf } from './facts'

/** Found contacts that are shown of each list; the list itself shows them all. */
const OF_EACH = 5

/** What wants doing over all lists, as a page and as a calendar, and a search over all of them. */
export function todayRoutes(app: Hono, services: CallServices): void {
  const { db } = services
  const countSoon = countsSoon(services)

  serve(app, services, 'readToday', async () => {
    await countSoon()
    return [...todayOf(await factsOf(db), services.now())]
  })

  serve(app, services, 'searchLists', async ({ query }) => {
    const open = await db.select().from(lists).where(isNull(lists.archivedAt)).orderBy(lists.name)
    const found = await Promise.all(
      open.map(async ({ id, name }) => {
        const page = await pageOfContacts(db, { listId: id, filter: query.filter, cursor: undefined, limit: OF_EACH })
        return { listId: id, listName: name, contacts: page.contacts, total: page.total, isCapped: page.isCapped }
      }),
    )
    return found.filter(({ total }) => total > 0)
  })

  serve(app, services, 'makeCalendar', async ({ me, c }) => {
    const secret = await makeSecret(db, me.id, new Date(services.now()))
    return { address: `${originOf(services, c.req.url, c.req.header('origin'))}/api/v1/calendar/${secret}` }
  })
  serve(app, services, 'removeCalendar', async ({ me }) => {
    await db.delete(calendars).where(eq(calendars.personId, me.id))
    return {}
  })
  serve(app, services, 'readCalendar', async ({ params, c }) => {
    const owner = await ownerOfSecret(db, params.secret)
    // Whoever has left reads no reminders any more.
    if (!(await services.people.list()).some(({ id }) => id === owner)) throw notFound('calendar')
    const { audiences } = await factsOf(db)
    return new Response(calendarOf(audiences, originOf(services, c.req.url)), {
      headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' },
    })
  })
}

/** Where the application is reached: as it is set up, where that is said, else as a caller sees it. */
const originOf = ({ config }: CallServices, url: string, origin?: string): string =>
  config.publicUrl ?? origin ?? new URL(url).origin
