import type { Hono } from 'hono'
import { z } from 'zod'
import type { NetworkRules } from './audience'
import { lineOf, onceOf, serviceOf } from './face'
import type { KnownBy } from './matching'
import type { Network } from './network'

export const KNOWN_BY: KnownBy = {
  personalEmail: 0.7,
  workEmail: 0.1,
  mobile: 0.45,
  nameAndPlace: 0,
  device: 0.8,
  companyPage: 0,
  site: 0,
  companyName: 0,
}

export const RULES: NetworkRules = {
  accounts: [
    { id: 't.wren', name: 'Wrenfold UK', lacks: [] },
    { id: 't.wren.garden', name: 'Wrenfold garden', lacks: ['terms-not-accepted'] },
  ],
  roundedTo: 100,
  toldFrom: 0,
  fewestMatched: 600,
  fewestLines: 1,
  minutes: { least: 90, perThousand: 20 },
  mostLinesOfPart: 10000,
  mostDays: null,
  isReplacedWhole: false,
}

const STATES = {
  received: 'QUEUED',
  matching: 'WORKING',
  usable: 'USABLE',
  refused: 'NOT_USABLE',
  lapsed: 'OLD',
} as const
const Cell = z.union([z.string(), z.array(z.string())])
const People = z.object({ people: z.array(z.record(z.string(), Cell)) })

/** Tallow: people as objects, of use once enough of them are matched, after hours. */
export const tallow = (network: Network, key: string): Hono =>
  serviceOf(
    key,
    (error) => ({ error }),
    (app) => {
      app.get('/accounts', (c) =>
        c.json({ data: network.rules.accounts.map(({ id, name, lacks }) => ({ id, name, todo: lacks })) }),
      )
      app.post('/audiences', async (c) => {
        const { account, name, purpose } = z
          .object({ account: z.string(), name: z.string(), purpose: z.enum(['aim', 'exclude', 'seed']) })
          .parse(await c.req.json())
        const asked = { account, name, takes: 'people', purpose, within: null, keepsDays: null } as const
        return c.json({ data: { id: network.make(asked, onceOf(c)) } })
      })
      const take = (change: 'add' | 'remove') =>
        app.post(`/audiences/:id/${change}`, async (c) => {
          const { people } = People.parse(await c.req.json())
          const lines = people.map((one) => {
            const cells = new Map(Object.entries(one).map(([name, cell]) => [name, [cell].flat()]))
            return lineOf(cells, { emails: ['e'], numbers: ['t'], devices: ['d'] })
          })
          return c.json({ data: { taken: network.part(c.req.param('id'), onceOf(c), { change, lines }) } })
        })
      take('add')
      take('remove')
      app.post('/audiences/:id/submit', (c) => {
        network.finish(c.req.param('id'))
        return c.json({ data: {} })
      })
      app.get('/audiences/:id', (c) => {
        const { state, reason, size } = network.stateOf(c.req.param('id'))
        return c.json({ data: { state: STATES[state], because: reason, size } })
      })
      app.delete('/audiences/:id', (c) => {
        network.remove(c.req.param('id'))
        return c.json({ data: {} })
      })
    },
  )
