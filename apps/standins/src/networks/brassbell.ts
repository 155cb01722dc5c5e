import type { Hono } from 'hono'
import { z } from 'zod'
import type { NetworkRules } from './audience'
import { cellsOf, lineOf, onceOf, serviceOf } from './face'
import type { KnownBy } from './matching'
import type { Network } from './network'

export const KNOWN_BY: KnownBy = {
  personalEmail: 0.66,
  workEmail: 0.16,
  mobile: 0.41,
  nameAndPlace: 0,
  device: 0,
  companyPage: 0,
  site: 0,
  companyName: 0,
}

export const RULES: NetworkRules = {
  accounts: [
    { id: 'bb-4410', name: 'Wrenfold UK', lacks: [] },
    { id: 'bb-4411', name: 'Wrenfold EU', lacks: [] },
    { id: 'bb-1002', name: 'Wrenfold before 2024', lacks: ['no-payment'] },
  ],
  roundedTo: 10,
  toldFrom: 500,
  fewestMatched: 0,
  fewestLines: 1,
  minutes: { least: 6, perThousand: 1 },
  mostLinesOfPart: 5000,
  mostDays: null,
  isReplacedWhole: false,
}

const STATES = {
  received: 'taken',
  matching: 'comparing',
  usable: 'ready',
  refused: 'turned down',
  lapsed: 'run out',
} as const
const Rows = z.object({
  op: z.enum(['put', 'pull']),
  headings: z.array(z.string()),
  rows: z.array(z.array(z.string())),
})
const Made = z.object({ title: z.string(), use: z.enum(['aim', 'exclude', 'seed']) })
const Goal = z.object({
  aim: z.array(z.string()),
  exclude: z.array(z.string()),
  daily: z.coerce.number(),
  days: z.coerce.number(),
})

/** Brassbell: tables of people, to which some are put and from which some are pulled. */
export const brassbell = (network: Network, key: string): Hono =>
  serviceOf(
    key,
    (why) => ({ why }),
    (app) => {
      app.get('/accounts', (c) =>
        c.json({
          accounts: network.rules.accounts.map(({ id, name, lacks }) => ({ id, title: name, blocked: lacks })),
        }),
      )
      app.post('/accounts/:account/tables', async (c) => {
        const { title, use } = Made.parse(await c.req.json())
        const asked = { account: c.req.param('account'), name: title, takes: 'people', purpose: use } as const
        return c.json({ table: network.make({ ...asked, within: null, keepsDays: null }, onceOf(c)) })
      })
      app.post('/tables/:table/rows', async (c) => {
        const { op, headings, rows } = Rows.parse(await c.req.json())
        const lines = rows.map((row) => lineOf(cellsOf(headings, row), { emails: ['mail'], numbers: ['line'] }))
        const change = op === 'put' ? 'add' : 'remove'
        return c.json({ rows: network.part(c.req.param('table'), onceOf(c), { change, lines }) })
      })
      app.post('/tables/:table/close', (c) => {
        network.finish(c.req.param('table'))
        return c.json({})
      })
      app.get('/tables/:table', (c) => {
        const { state, reason, size } = network.stateOf(c.req.param('table'))
        return c.json({ now: STATES[state], why: reason, people: size })
      })
      app.delete('/tables/:table', (c) => {
        network.remove(c.req.param('table'))
        return c.json({})
      })
      app.post('/accounts/:account/similar', async (c) => {
        const { seed, land, nearness } = z
          .object({ seed: z.string(), land: z.string(), nearness: z.coerce.number() })
          .parse(await c.req.json())
        const asked = { account: c.req.param('account'), name: 'similar', takes: 'people', purpose: 'aim' } as const
        const similarTo = { seed, country: land, closeness: nearness }
        return c.json({ table: network.make({ ...asked, within: null, keepsDays: null }, onceOf(c), similarTo) })
      })
      app.post('/accounts/:account/campaigns', async (c) => {
        const goal = Goal.parse(await c.req.json())
        return c.json({ campaign: network.campaign({ account: c.req.param('account'), ...goal }, onceOf(c)) })
      })
      app.get('/campaigns/:campaign', (c) => {
        const { isDone, reach, spent } = network.campaignOf(c.req.param('campaign'))
        return c.json({ state: isDone ? 'over' : 'on', reached: reach, spent })
      })
    },
  )
