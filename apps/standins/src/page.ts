import { type Context, Hono } from 'hono'
import { html } from 'hono/html'
import type { Pace } from './http'
import type { Network } from './networks'
import { FAULTS, type Fault, NETWORK_FAULTS, type Watch } from './watched'

/** A service as the page shows it. */
export interface Watched {
  readonly name: string
  readonly watch: Watch
  readonly charged: { readonly total: number; readonly count: number }
}

/** An ad network as the page shows it. */
export interface WatchedNetwork {
  readonly name: string
  readonly watch: Watch
  readonly network: Network
}

/** How quick services and networks are: each by themselves, since these take hours. */
export interface Paces {
  readonly services: Pace
  readonly networks: Pace
}

interface Shown {
  readonly services: () => readonly Watched[]
  readonly networks: () => readonly WatchedNetwork[]
}

const euros = (micros: number): string => `€${(micros / 1_000_000).toFixed(3)}`

/** A page with what each service was asked and answered, its books, and switches for what may go wrong. */
export function pageOf(paces: Paces, shown: Shown): Hono {
  const app = new Hono()
  app.get('/', (c) => c.html(overview(paces, shown)))
  for (const [of, pace] of Object.entries(paces))
    app.post(`/speed/${of}/:times`, (c) => {
      const times = Number(c.req.param('times'))
      if (!(times >= 0.1 && times <= 100_000))
        return c.json({ error: 'between 0.1 and 100000 times as quick as life' }, 400)
      pace.speed = times
      return c.redirect('/world', 303)
    })
  app.post('/later/:days', (c) => {
    const days = Number(c.req.param('days'))
    if (!(days >= 0 && days <= 4000)) return c.json({ error: 'from 0 to 4000 days' }, 400)
    for (const { network } of shown.networks()) network.ahead += days
    return c.redirect('/world', 303)
  })
  app.post('/:service/:fault', (c) => toggle(c, [...shown.services(), ...shown.networks()]))
  return app
}

function toggle(c: Context, services: readonly { readonly name: string; readonly watch: Watch }[]): Response {
  const { service, fault } = c.req.param() as { service: string; fault: string }
  const found = services.find(({ name }) => name === service)
  const known = [...FAULTS, ...NETWORK_FAULTS].find((one) => one === fault)
  if (!found || !known) return c.json({ error: 'no such switch' }, 404)
  if (!found.watch.faults.delete(known)) found.watch.faults.add(known)
  return c.redirect('/world', 303)
}

const SPEEDS = [1, 5, 30]
const NETWORK_SPEEDS = [1, 100, 20_000]
const LATER = [1, 30]

const speedsOf = (of: keyof Paces, pace: Pace, speeds: readonly number[]) =>
  speeds.map(
    (times) => html`<form method="post" action="/world/speed/${of}/${times}">
        <button aria-pressed="${pace.speed === times ? 'true' : 'false'}">${times === 1 ? 'as in life' : `${times} times`}</button>
      </form> `,
  )

const overview = (paces: Paces, { services, networks }: Shown) => html`<!doctype html>
  <html lang="en">
    <head>
      <meta charset="utf-8" />
      <title>The simulated outside world</title>
      <style>
        body { font: 15px/1.5 sans-serif; margin: 2rem; max-width: 75rem; }
        section { border-top: 1px solid; padding: 0.5rem 0 1rem; }
        form { display: inline; }
        button[aria-pressed='true'] { font-weight: bold; background: gold; }
        table { border-collapse: collapse; margin: 0.5rem 0; }
        th, td { text-align: left; padding: 0.1rem 1rem 0.1rem 0; border-bottom: 1px solid silver; }
        pre { white-space: pre-wrap; word-break: break-all; font-size: 12px; margin: 0 0 0.5rem; }
      </style>
    </head>
    <body>
      <h1>The simulated outside world</h1>
      <p>Made-up services on this machine: what each was asked and answered, what it has charged, and what is made to go wrong.</p>
      <p>How quick: ${speedsOf('services', paces.services, SPEEDS)}</p>
      ${services().map(serviceOf)}
      <h1>Ad networks</h1>
      <p>How quick: ${speedsOf('networks', paces.networks, NETWORK_SPEEDS)}</p>
      <p>Their clock: ${LATER.map(
        (days) => html`<form method="post" action="/world/later/${days}">
        <button>${days} days later</button>
      </form> `,
      )}</p>
      ${networks().map(networkOf)}
    </body>
  </html>`

const serviceOf = ({ name, watch, charged }: Watched) => html`<section>
  <h2>${name}</h2>
  <p>Asked ${watch.asked()} times · charged ${charged.count} times, ${euros(charged.total)} together</p>
  <p>${FAULTS.map((fault) => switchOf(name, fault, watch.faults.has(fault)))}</p>
  ${exchangesOf(watch)}
</section>`

const exchangesOf = ({ exchanges }: Watch) => html`<details>
  <summary>Latest exchanges</summary>
  ${exchanges.map(({ at, asked, answered }) => html`<pre>${at.toISOString()}\n${asked}\n${answered}</pre>`)}
</details>`

const networkOf = ({ name, watch, network }: WatchedNetwork) => html`<section>
  <h2>${name}</h2>
  <p>Asked ${watch.asked()} times · accounts: ${network.rules.accounts.map(({ name: who, lacks }) => (lacks.length > 0 ? `${who} (${lacks.join(', ')})` : who)).join('; ')}</p>
  <p>${NETWORK_FAULTS.map((fault) => switchOf(name, fault, watch.faults.has(fault)))}</p>
  <table>
    <tr><th>Audience</th><th>Account</th><th>Lines</th><th>Truly matched</th><th>Told</th><th>State</th></tr>
    ${network.books().map(
      ({ name: audience, account, lines, matched, state }) => html`<tr>
      <td>${audience}</td><td>${account}</td><td>${lines}</td><td>${matched}</td><td>${state.size ?? '—'}</td>
      <td>${state.state}${state.reason === null ? '' : `: ${state.reason}`}</td>
    </tr>`,
    )}
  </table>
  ${exchangesOf(watch)}
</section>`

const switchOf = (
  name: string,
  fault: Fault,
  isOn: boolean,
) => html`<form method="post" action="/world/${name}/${fault}">
  <button aria-pressed="${isOn ? 'true' : 'false'}">${fault}</button>
</form> `
