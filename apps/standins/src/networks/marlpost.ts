import type { Hono } from 'hono'
import { z } from 'zod'
import type { NetworkRules } from './audience'
import { cellsOf, lineOf, onceOf, type Reading, serviceOf } from './face'
import type { KnownBy } from './matching'
import type { Network } from './network'

export const KNOWN_BY: KnownBy = {
  personalEmail: 0.35,
  workEmail: 0.19,
  mobile: 0,
  nameAndPlace: 0,
  device: 0,
  companyPage: 0.97,
  site: 0.85,
  companyName: 0.25,
}

export const RULES: NetworkRules = {
  accounts: [
    { id: '5090', name: 'Wrenfold EU', lacks: [] },
    { id: '5091', name: 'Wrenfold, as its agency sees it', lacks: ['may-only-look'] },
  ],
  roundedTo: 1,
  toldFrom: 0,
  fewestMatched: 0,
  fewestLines: 300,
  minutes: { least: 20, perThousand: 5 },
  mostLinesOfPart: 5000,
  mostDays: null,
  isReplacedWhole: true,
}

const READINGS: Readonly<Record<'companies' | 'people', Reading>> = {
  companies: { companyPage: 'page', site: 'web site', companyName: 'organisation' },
  people: { emails: ['letter'] },
}
const STATES = {
  received: 'received',
  matching: 'being matched',
  usable: 'usable',
  refused: 'refused',
  lapsed: 'lapsed',
} as const
const Made = z.object({
  account: z.string(),
  name: z.string(),
  of: z.enum(['companies', 'people']),
  inside: z.string(),
  use: z.enum(['aim', 'exclude', 'seed']),
})
const Rows = z.object({ headings: z.array(z.string()), rows: z.array(z.array(z.string())) })

/** Marlpost: segments of companies, and of people inside them, replaced whole by an upload that is committed. */
export const marlpost = (network: Network, key: string): Hono =>
  serviceOf(
    key,
    (reason) => ({ refused: reason }),
    (app) => {
      app.get('/accounts', (c) =>
        c.json({ accounts: network.rules.accounts.map(({ id, name, lacks }) => ({ id, name, stops: lacks })) }),
      )
      app.post('/segments', async (c) => {
        const { account, name, of, inside, use } = Made.parse(await c.req.json())
        const asked = { account, name, takes: of, purpose: use, within: inside === '' ? null : inside } as const
        return c.json({ segment: network.make({ ...asked, keepsDays: null }, onceOf(c)) })
      })
      app.post('/segments/:segment/uploads', (c) =>
        c.json({ upload: network.upload(c.req.param('segment'), onceOf(c)) }),
      )
      app.post('/segments/:segment/uploads/:upload/rows', async (c) => {
        const { headings, rows } = Rows.parse(await c.req.json())
        const reading = READINGS[headings.includes('letter') ? 'people' : 'companies']
        const lines = rows.map((row) => lineOf(cellsOf(headings, row), reading))
        const { segment, upload } = c.req.param()
        return c.json({ taken: network.part(segment, onceOf(c), { change: 'add', lines, upload }) })
      })
      app.post('/segments/:segment/uploads/:upload/commit', (c) => {
        const { segment, upload } = c.req.param()
        network.finish(segment, upload)
        return c.json({})
      })
      app.get('/segments/:segment', (c) => {
        const { state, reason, size } = network.stateOf(c.req.param('segment'))
        return c.json({ state: STATES[state], reason, matched: size })
      })
      app.delete('/segments/:segment', (c) => {
        network.remove(c.req.param('segment'))
        return c.json({})
      })
    },
  )
