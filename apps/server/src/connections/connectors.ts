import { ConnectorDocument } from '@upper-field/contract'
import { type Connector, type Gives, priceOf } from '@upper-field/core/connect'
import { type ProviderTerms, serves, WANTS } from '@upper-field/core/fill'
import { eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { connections } from '../db/schema'
import { shippedFiles } from '../shippedFiles'

let shipped: readonly Connector[] | null = null

/** The connectors that ship with the application. A file that is none is an error of the build. */
export function shippedConnectors(): readonly Connector[] {
  shipped ??= shippedFiles('connectors').map((text) => ConnectorDocument.parse(JSON.parse(text)))
  return shipped
}

export type ConnectionRow = typeof connections.$inferSelect

/** What a connection is to: its own document, or the one that ships under its id. */
export const connectorOfRow = ({ provider, document }: ConnectionRow): Connector | null =>
  document ?? shippedConnectors().find(({ id }) => id === provider) ?? null

/** A service by its id, connected or shipped; null where there is none. */
export async function findConnector(db: Db, id: string): Promise<Connector | null> {
  const [row] = await db.select().from(connections).where(eq(connections.provider, id))
  return (row && connectorOfRow(row)) ?? shippedConnectors().find((one) => one.id === id) ?? null
}

/** Services that have a key, in the order of their ids. */
export async function connectedServices(db: Db): Promise<readonly Connector[]> {
  const rows = await db.select().from(connections).where(sql`sealed_key is not null`).orderBy(connections.provider)
  return rows.flatMap((row) => connectorOfRow(row) ?? [])
}

/** The first service connected that gives this; null where none does. */
export const connectorGiving = async (db: Db, what: Gives): Promise<Connector | null> =>
  (await connectedServices(db)).find(({ gives }) => gives.includes(what)) ?? null

/** True where a service finds numbers or addresses of people. */
export const findsPeople = ({ gives }: Connector): boolean => WANTS.some((want) => serves(gives, want))

/** A service as a fill sees it. */
export const termsOf = (connector: Connector): ProviderTerms => ({
  id: connector.id,
  gives: connector.gives,
  accepts: connector.accepts,
  charge: { per: connector.charge.per, amount: priceOf(connector) },
  mostCandidates: connector.mostCandidates,
})
