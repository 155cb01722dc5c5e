import type { Connection } from '@upper-field/contract'
import { type Connector, priceOf } from '@upper-field/core/connect'
import type { Db } from '../db/database'
import { num, orNull, orZero, readRows, text, when } from '../db/readRows'
import { connections } from '../db/schema'
import { type ConnectionRow, connectorOfRow, findsPeople, shippedConnectors } from './connectors'

/** What became of the questions to one service. */
interface Doings {
  readonly lastAnswerAt: string | null
  readonly failures: number
  readonly spentThisMonth: number
}

const NOTHING_DONE: Doings = { lastAnswerAt: null, failures: 0, spentThisMonth: 0 }

/**
 * Services that are connected, in the order of their names.
 * @param withShipped those that only ship with the application too
 */
export async function describeConnections(db: Db, withShipped: boolean): Promise<Connection[]> {
  const rows = new Map((await db.select().from(connections)).map((row) => [row.provider, row]))
  const kept = [...rows.values()].flatMap((row) => connectorOfRow(row) ?? [])
  const others = withShipped ? shippedConnectors().filter(({ id }) => !rows.has(id)) : []
  const doings = await doingsOf(db)
  return [...kept, ...others]
    .sort((a, b) => a.name.localeCompare(b.name))
    .map((connector) => describe(connector, rows.get(connector.id), doings.get(connector.id) ?? NOTHING_DONE))
}

function describe(connector: Connector, row: ConnectionRow | undefined, doings: Doings): Connection {
  const { id, name, about, gives, accepts, charge, isPaidFor } = connector
  return {
    provider: id,
    name,
    about,
    role: roleOf(connector),
    gives: [...gives],
    accepts: [...accepts],
    countries: connector.countries === null ? null : [...connector.countries],
    baseUrl: row?.baseUrl ?? '',
    hasKey: row?.sealedKey != null,
    pricePer: charge.per,
    price: priceOf(connector),
    isPaidFor,
    changedAt: row?.changedAt.toISOString() ?? null,
    ...doings,
  }
}

function roleOf(connector: Connector): Connection['role'] {
  if (connector.directory) return 'directory'
  if (connector.gives.includes('line-facts')) return 'register'
  if (findsPeople(connector)) return 'provider'
  if (connector.gives.includes('email-facts')) return 'verifier'
  return connector.gives.includes('do-not-call') ? 'do-not-call' : 'other'
}

async function doingsOf(db: Db): Promise<Map<string, Doings>> {
  const asked = await readRows(db, ASKED)`
    select provider, max(answered_at) filter (where how <> 'failed') as last_answer_at,
      count(*) filter (where how = 'failed' and asked_at > now() - interval '30 days') as failures, sum(spent) as spent_this_month
    from (
      select provider, answered_at, asked_at,
        case when state in ('failed', 'late') then 'failed' else 'answered' end as how, 0 as spent from attempts
      union all
      select provider, at, at, 'answered', case when at >= date_trunc('month', now()) then amount else 0 end from charges
    ) done group by provider`
  return new Map(
    asked.map(({ provider, lastAnswerAt, ...counts }) => [
      provider,
      { ...counts, lastAnswerAt: lastAnswerAt?.toISOString() ?? null },
    ]),
  )
}

const ASKED = { provider: text, lastAnswerAt: orNull(when), failures: num, spentThisMonth: orZero }
