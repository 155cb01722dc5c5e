import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { PoolClient } from 'pg'
import { from as copyFrom } from 'pg-copy-streams'
import { type CopyLine, copyText } from './copyText'
import { inPages } from './inPages'

/** So many lines are written out at a time. */
const PAGE = 1000

/** Lines of a table, written as COPY takes them. */
export interface CopyBytes {
  /** Names of ours, never input. */
  readonly table: string
  readonly columns: readonly string[]
  /** Empty where there are no lines. */
  readonly bytes: Uint8Array
}

/**
 * Loads lines into a table with COPY. Table and columns are names of ours, never input.
 * @param lines values in the order of `columns`
 */
export async function copyInto(
  client: PoolClient,
  table: string,
  columns: readonly string[],
  lines: readonly CopyLine[],
): Promise<void> {
  if (lines.length > 0) await copyFromParts(client, table, columns, inParts(lines))
}

/** The same lines written out, to be loaded later or by another thread. */
export const copyBytesOf = (table: string, columns: readonly string[], lines: readonly CopyLine[]): CopyBytes => ({
  table,
  columns,
  bytes: copyText(lines),
})

/** Loads lines that were written out before. */
export async function copyWritten(client: PoolClient, { table, columns, bytes }: CopyBytes): Promise<void> {
  if (bytes.length > 0) await copyFromParts(client, table, columns, [bytes])
}

async function copyFromParts(
  client: PoolClient,
  table: string,
  columns: readonly string[],
  parts: Iterable<Uint8Array>,
): Promise<void> {
  const target = client.query(copyFrom(`copy ${table} (${columns.join(', ')}) from stdin`))
  await pipeline(Readable.from(parts), target)
}

function* inParts(lines: readonly CopyLine[]): Generator<Buffer> {
  for (const page of inPages(lines, PAGE)) yield copyText(page)
}
