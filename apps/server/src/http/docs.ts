import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Hono } from 'hono'

const VIEWER = dirname(createRequire(import.meta.url).resolve('swagger-ui-dist/package.json'))
/** Files of the viewer that are needed, by the name they are asked for. */
const FILES: Readonly<Record<string, string>> = {
  'swagger-ui.css': 'text/css; charset=utf-8',
  'swagger-ui-bundle.js': 'text/javascript; charset=utf-8',
}

const PAGE = `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><title>Upper Field: every call</title><link rel="stylesheet" href="/api/docs/swagger-ui.css"></head>
<body><nav class="swagger-ui" style="padding: 12px 28px"><a href="/api/docs">Calls for programs</a> · <a href="/api/docs?for=all">All calls</a> · <a href="/">Upper Field</a></nav>
<main id="calls"></main><script src="/api/docs/swagger-ui-bundle.js"></script><script src="/api/docs/start.js"></script></body>
</html>`
/** The calls for programs are shown first: they are few, and opened at once. */
const START = `const all = new URLSearchParams(location.search).get('for') === 'all'
SwaggerUIBundle({ url: all ? '/api/openapi.json' : '/api/openapi.json?for=programs', dom_id: '#calls',
  docExpansion: all ? 'none' : 'list', defaultModelsExpandDepth: -1,
  // Nobody outside is asked what they think of it.
  validatorUrl: null })`

/** The OpenAPI document, readably: every call with its shape and an example. */
export function docsRoutes(app: Hono): void {
  app.get('/api/docs', (c) => c.html(PAGE))
  app.get('/api/docs/start.js', (c) => c.body(START, 200, { 'content-type': 'text/javascript; charset=utf-8' }))
  app.get('/api/docs/:file', async (c, next) => {
    const file = c.req.param('file')
    const type = FILES[file]
    if (type === undefined) return next()
    return c.body(new Uint8Array(await readFile(join(VIEWER, file))), 200, { 'content-type': type })
  })
}
