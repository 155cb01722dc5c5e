import { getConnInfo } from '@hono/node-server/conninfo'
import { openApiDocument } from '@upper-field/contract'
import { Hono } from 'hono'
import { csrf } from 'hono/csrf'
import { secureHeaders } from 'hono/secure-headers'
import { bringRoutes } from '../bring/routes'
import { checkRoutes } from '../check/routes'
import { connectionRoutes } from '../connections/routes'
import { contactRoutes } from '../contacts/routes'
import { fillRoutes } from '../fill/routes'
import type { JobEvents } from '../jobs/events'
import { jobRoutes } from '../jobs/routes'
import { listRoutes } from '../lists/routes'
import { pairRoutes } from '../pair/routes'
import { CLIENT_HEADER } from '../people/auth'
import { peopleRoutes } from '../people/routes'
import { sendRoutes } from '../send/routes'
import type { Services } from '../services'
import { suppressionRoutes } from '../suppression/routes'
import { tidyRoutes } from '../tidy/routes'
import { notFound, renderProblem } from './problem'
import { webRoutes } from './web'

/** The whole application behind one port: API, sign-in, web client. */
export function createApp(services: Services, events: JobEvents): Hono {
  const app = new Hono()
  app.onError(renderProblem)
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        workerSrc: ["'self'", 'blob:'],
        frameAncestors: ["'none'"],
      },
    }),
  )
  app.use('/api/*', async (c, next) => (c.req.path.startsWith('/api/v1/callbacks/') ? next() : csrf()(c, next)))
  app.on(['GET', 'POST'], '/api/auth/*', (c) => {
    const request = new Request(c.req.raw)
    request.headers.set(CLIENT_HEADER, getConnInfo(c).remote.address ?? 'unknown')
    return services.people.handler(request)
  })
  peopleRoutes(app, services)
  listRoutes(app, services)
  contactRoutes(app, services)
  bringRoutes(app, services)
  tidyRoutes(app, services)
  pairRoutes(app, services)
  suppressionRoutes(app, services)
  checkRoutes(app, services)
  fillRoutes(app, services)
  sendRoutes(app, services)
  connectionRoutes(app, services)
  jobRoutes(app, services, events)
  app.get('/api/openapi.json', (c) => c.json(openApiDocument()))
  app.all('/api/*', () => {
    throw notFound('call')
  })
  webRoutes(app, services.config.webDir)
  return app
}
