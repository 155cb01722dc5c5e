import { parse } from 'csv-parse/sync'
import type { Hono } from 'hono'
import { z } from 'zod'
import type { NetworkRules } from './audience'
import { cellsOf, lineOf, onceOf, serviceOf } from './face'
import type { KnownBy } from './matching'
import type { Network } from './network'

export const KNOWN_BY: KnownBy = {
  personalEmail: 0.62,
  workEmail: 0.12,
  mobile: 0.33,
  nameAndPlace: 0.3,
  device: 0,
  companyPage: 0,
  site: 0,
  companyName: 0,
}

export const RULES: NetworkRules = {
  accounts: [
    { id: '70-221', name: 'Wrenfold UK', lacks: [] },
    { id: '70-305', name: 'Wrenfold DACH', lacks: ['exclude-only'] },
    { id: '70-318', name: 'Wrenfold trials', lacks: ['too-new'] },
  ],
  roundedTo: 1,
  toldFrom: 0,
  fewestMatched: 0,
  fewestLines: 1,
  minutes: { least: 12, perThousand: 2 },
  mostLinesOfPart: 2000,
  mostDays: 400,
  isReplacedWhole: false,
}

const STATES = { received: 1, matching: 2, usable: 3, refused: 8, lapsed: 9 } as const
const Made = z.object({
  account: z.string(),
  label: z.string(),
  for: z.enum(['show', 'hide', 'like']),
  days: z.number(),
})
const PURPOSES = { show: 'aim', hide: 'exclude', like: 'seed' } as const
const Sheet = z.object({ do: z.enum(['plus', 'minus']), csv: z.string() })

/** Northpin: sheets of people as CSV, who stay for so many days. */
export const northpin = (network: Network, key: string): Hono =>
  serviceOf(
    key,
    (code) => ({ refusal: { code } }),
    (app) => {
      app.get('/me/accounts', (c) =>
        c.json(network.rules.accounts.map(({ id, name, lacks }) => ({ number: id, name, missing: lacks }))),
      )
      app.post('/lists', async (c) => {
        const { account, label, for: use, days } = Made.parse(await c.req.json())
        const asked = { account, name: label, takes: 'people', purpose: PURPOSES[use], within: null } as const
        return c.json({ list: { id: network.make({ ...asked, keepsDays: days }, onceOf(c)) } })
      })
      app.post('/lists/:list/sheets', async (c) => {
        const sheet = Sheet.parse(await c.req.json())
        const [headings = [], ...rows] = parse(sheet.csv, { relaxColumnCount: true }) as string[][]
        const lines = rows.map((row) =>
          lineOf(cellsOf(headings, row), {
            emails: ['letter box'],
            numbers: ['dial'],
            nameAndPlace: ['forename', 'surname', 'land', 'post code'],
          }),
        )
        const change = sheet.do === 'plus' ? 'add' : 'remove'
        return c.json({ lines: network.part(c.req.param('list'), onceOf(c), { change, lines }) })
      })
      app.post('/lists/:list/done', (c) => {
        network.finish(c.req.param('list'))
        return c.json({})
      })
      app.get('/lists/:list', (c) => {
        const { state, reason, size, lapsesAt } = network.stateOf(c.req.param('list'))
        return c.json({ list: { status: STATES[state], note: reason, size, until: lapsesAt?.toISOString() ?? null } })
      })
      app.post('/lists/:list/drop', (c) => {
        network.remove(c.req.param('list'))
        return c.json({})
      })
      app.post('/trials', async (c) => {
        const asked = z
          .object({
            account: z.string(),
            show: z.array(z.string()),
            hide: z.array(z.string()),
            perDay: z.coerce.number(),
            days: z.coerce.number(),
          })
          .parse(await c.req.json())
        const { account, show, hide, perDay, days } = asked
        return c.json({ id: network.campaign({ account, aim: show, exclude: hide, daily: perDay, days }, onceOf(c)) })
      })
      app.get('/trials/:trial', (c) => {
        const { isDone, reach, spent } = network.campaignOf(c.req.param('trial'))
        return c.json({ finished: isDone ? 'yes' : 'no', people: reach, cost: spent })
      })
    },
  )
