import type { Hono } from 'hono'
import { serve } from '../http/serve'
import { findList } from '../lists/routes'
import type { CallServices } from '../services'
import { columnsOf } from './columnsOf'
import { pageOfContacts } from './page'
import { countPiles } from './piles'
import { USUAL_SAMPLING } from './sample'
import { storyOf } from './story'

export function contactRoutes(app: Hono, services: CallServices): void {
  const { db } = services

  serve(app, services, 'readPiles', async ({ params, query }) => {
    await findList(db, params.listId)
    return countPiles(db, params.listId, query.filter, query.estimate === 'yes' ? USUAL_SAMPLING : null)
  })

  serve(app, services, 'readColumns', async ({ params }) => {
    await findList(db, params.listId)
    return (await columnsOf(db, params.listId)).map((one) => ({ ...one }))
  })

  serve(app, services, 'readContacts', async ({ params, query, me }) => {
    const { filter, cursor, limit, sort } = query
    const page = await pageOfContacts(db, { listId: params.listId, filter, cursor, limit, sort })
    await services.callLimits.read(me.id, page.contacts.length)
    return page
  })

  serve(app, services, 'readStory', async ({ params, me }) => {
    await services.callLimits.read(me.id, 1)
    return storyOf(db, params.contactId, services.now())
  })
}
