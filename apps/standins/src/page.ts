import { type Context, Hono } from 'hono'
import { html } from 'hono/html'
import type { Pace } from './http'
import { FAULTS, type Fault, type Watch } from './watched'

/** A service as the page shows it. */
export interface Watched {
  readonly name: string
  readonly watch: Watch
  readonly charged: { readonly total: number; readonly count: number }
}

const euros = (micros: number): string => `€${(micros / 1_000_000).toFixed(3)}`

/** A page with what each service was asked and answered, its books, and switches for what may go wrong. */
export function pageOf(pace: Pace, services: () => readonly Watched[]): Hono {
  const app = new Hono()
  app.get('/', (c) => c.html(overview(pace, services())))
  app.post('/speed/:times', (c) => {
    const times = Number(c.req.param('times'))
    if (!(times >= 0.1 && times <= 1000)) return c.json({ error: 'between 0.1 and 1000 times as quick as life' }, 400)
    pace.speed = times
    return c.redirect('/world', 303)
  })
  app.post('/:service/:fault', (c) => toggle(c, services()))
  return app
}

function toggle(c: Context, services: readonly Watched[]): Response {
  const { service, fault } = c.req.param() as { service: string; fault: string }
  const found = services.find(({ name }) => name === service)
  const known = FAULTS.find((one) => one === fault)
  if (!found || !known) return c.json({ error: 'no such switch' }, 404)
  if (!found.watch.faults.delete(known)) found.watch.faults.add(known)
  return c.redirect('/world', 303)
}

const SPEEDS = [1, 5, 30]

const overview = (pace: Pace, services: readonly Watched[]) => html`<!doctype html>
  <html lang="en">
    <head>
      <meta charset="utf-8" />
      <title>The simulated outside world</title>
      <style>
        body { font: 15px/1.5 sans-serif; margin: 2rem; max-width: 75rem; }
        section { border-top: 1px solid; padding: 0.5rem 0 1rem; }
        form { display: inline; }
        button[aria-pressed='true'] { font-weight: bold; background: gold; }
        pre { white-space: pre-wrap; word-break: break-all; font-size: 12px; margin: 0 0 0.5rem; }
      </style>
    </head>
    <body>
      <h1>The simulated outside world</h1>
      <p>Made-up services on this machine: what each was asked and answered, what it has charged, and what is made to go wrong.</p>
      <p>How quick:
      ${SPEEDS.map(
        (times) => html`<form method="post" action="/world/speed/${times}">
        <button aria-pressed="${pace.speed === times ? 'true' : 'false'}">${times === 1 ? 'as in life' : `${times} times`}</button>
      </form> `,
      )}</p>
      ${services.map(serviceOf)}
    </body>
  </html>`

const serviceOf = ({ name, watch, charged }: Watched) => html`<section>
  <h2>${name}</h2>
  <p>Asked ${watch.asked()} times · charged ${charged.count} times, ${euros(charged.total)} together</p>
  <p>${FAULTS.map((fault) => switchOf(name, fault, watch.faults.has(fault)))}</p>
  <details>
    <summary>Latest exchanges</summary>
    ${watch.exchanges.map(({ at, asked, answered }) => html`<pre>${at.toISOString()}\n${asked}\n${answered}</pre>`)}
  </details>
</section>`

const switchOf = (
  name: string,
  fault: Fault,
  isOn: boolean,
) => html`<form method="post" action="/world/${name}/${fault}">
  <button aria-pressed="${isOn ? 'true' : 'false'}">${fault}</button>
</form> `
