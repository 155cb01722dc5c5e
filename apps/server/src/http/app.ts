import { openApiDocument } from '@upper-field/contract'
import { type Context, Hono } from 'hono'
import { csrf } from 'hono/csrf'
import { secureHeaders } from 'hono/secure-headers'
import { automationRoutes } from '../automations/routes'
import { bringRoutes } from '../bring/routes'
import { checkRoutes } from '../check/routes'
import { connectionRoutes } from '../connections/routes'
import { contactRoutes } from '../contacts/routes'
import { directoryRoutes } from '../directory/routes'
import { fillRoutes } from '../fill/routes'
import { harvestRoutes } from '../harvest/routes'
import type { ServerEvents } from '../jobs/events'
import { jobRoutes } from '../jobs/routes'
import { listRoutes } from '../lists/routes'
import { machineRoutes } from '../machine/routes'
import { pairRoutes } from '../pair/routes'
import { peopleRoutes } from '../people/routes'
import { audienceRoutes } from '../send/audienceRoutes'
import { sendRoutes } from '../send/routes'
import type { CallServices, Services } from '../services'
import { spendRoutes } from '../spend/routes'
import { splitRoutes } from '../split/routes'
import { suppressionRoutes } from '../suppression/routes'
import { tidyRoutes } from '../tidy/routes'
import { todayRoutes } from '../today/routes'
import { webhookRoutes } from '../webhooks/routes'
import { authRoutes } from './authRoutes'
import { docsRoutes } from './docs'
import { onlyOurHost } from './host'
import { notFound, renderProblem } from './problem'
import { webRoutes } from './web'

/** The whole application behind one port: API, sign-in, web client. */
export function createApp(services: CallServices, events: ServerEvents): Hono {
  const app = new Hono()
  app.onError(renderProblem)
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    }),
  )
  app.use(onlyOurHost(services.config))
  app.use('/api/*', async (c, next) => {
    await next()
    // Nothing of what is told here is to lie in a cache, on the way or on a disk.
    c.header('cache-control', 'no-store')
  })
  app.use('/api/v1/*', async (c, next) => {
    await next()
    const answered = c.get('answered' as never) as ((status: number) => void) | undefined
    answered?.(c.res.status)
  })
  const fromOurPages = csrf(originOf(services.config))
  app.use('/api/*', (c, next) => (c.req.path.startsWith('/api/v1/callbacks/') ? next() : fromOurPages(c, next)))
  authRoutes(app, services)
  peopleRoutes(app, services)
  listRoutes(app, services)
  contactRoutes(app, services)
  bringRoutes(app, services)
  harvestRoutes(app, services)
  directoryRoutes(app, services)
  tidyRoutes(app, services)
  pairRoutes(app, services)
  suppressionRoutes(app, services)
  todayRoutes(app, services)
  checkRoutes(app, services)
  fillRoutes(app, services)
  splitRoutes(app, services)
  sendRoutes(app, services)
  audienceRoutes(app, services)
  connectionRoutes(app, services)
  spendRoutes(app, services)
  machineRoutes(app, services)
  webhookRoutes(app, services)
  automationRoutes(app, services)
  jobRoutes(app, services, events)
  docsRoutes(app)
  app.get('/api/openapi.json', (c) => c.json(openApiDocument(c.req.query('for') === 'programs' ? 'programs' : 'all')))
  app.all('/api/*', () => {
    throw notFound('call')
  })
  webRoutes(app, services.config.webDir)
  return app
}

/** Our pages have the call's own origin, or the public one behind a proxy that ends encryption. */
function originOf({ publicUrl }: Services['config']) {
  return { origin: (origin: string, c: Context) => origin === publicUrl || origin === new URL(c.req.url).origin }
}
