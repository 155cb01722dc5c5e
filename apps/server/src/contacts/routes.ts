import type { Hono } from 'hono'
import { serve } from '../http/serve'
import { findList } from '../lists/routes'
import type { Services } from '../services'
import { pageOfContacts } from './page'
import { countPiles } from './piles'
import { storyOf } from './story'

export function contactRoutes(app: Hono, services: Services): void {
  const { db } = services

  serve(app, services, 'readPiles', async ({ params, query }) => {
    await findList(db, params.listId)
    return countPiles(db, params.listId, query.filter)
  })

  serve(app, services, 'readContacts', async ({ params, query }) =>
    pageOfContacts(db, { listId: params.listId, filter: query.filter, cursor: query.cursor, limit: query.limit }),
  )

  serve(app, services, 'readStory', async ({ params }) => storyOf(db, params.contactId))
}
