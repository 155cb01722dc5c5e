import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { serveStatic } from '@hono/node-server/serve-static'
import type { Context, Hono } from 'hono'

/** The built web client. Every address that is no file is a view of it. */
export function webRoutes(app: Hono, folder: string | null): void {
  if (folder === null) return
  const page = readFileSync(join(folder, 'index.html'), 'utf8')
  app.use('/assets/*', async (c, next) => {
    await next()
    if (c.res.status < 300) c.header('cache-control', 'public, max-age=31536000, immutable')
  })
  const view = (c: Context) => c.html(page, 200, { 'cache-control': 'no-cache' })
  // The bare address is a view too: as a file it would be the folder itself.
  app.get('/', view)
  app.use('/*', serveStatic({ root: folder, index: '', precompressed: true }))
  // A page of before a renewal asks for parts that are gone: to answer with the page would be kept for a year in their place.
  app.get('/assets/*', (c) => c.text('There is no such part.', 404, { 'cache-control': 'no-store' }))
  app.get('*', view)
}
