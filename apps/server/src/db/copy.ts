import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { PoolClient } from 'pg'
import { from as copyFrom } from 'pg-copy-streams'
import { inPages } from './inPages'

export type CopyValue = string | number | boolean | null | readonly string[] | Buffer

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
  lines: readonly (readonly CopyValue[])[],
): Promise<void> {
  if (lines.length > 0) await copyFromPieces(client, table, columns, inPieces(lines))
}

/** The same lines written out, to be loaded later or by another thread. */
export const copyBytesOf = (
  table: string,
  columns: readonly string[],
  lines: readonly (readonly CopyValue[])[],
): CopyBytes => ({ table, columns, bytes: Buffer.concat([...inPieces(lines)].map((piece) => Buffer.from(piece))) })

/** Loads lines that were written out before. */
export async function copyWritten(client: PoolClient, { table, columns, bytes }: CopyBytes): Promise<void> {
  if (bytes.length > 0) await copyFromPieces(client, table, columns, [bytes])
}

async function copyFromPieces(
  client: PoolClient,
  table: string,
  columns: readonly string[],
  pieces: Iterable<string | Uint8Array>,
): Promise<void> {
  const target = client.query(copyFrom(`copy ${table} (${columns.join(', ')}) from stdin`))
  await pipeline(Readable.from(pieces), target)
}

function* inPieces(lines: readonly (readonly CopyValue[])[]): Generator<string> {
  for (const page of inPages(lines, 1000)) yield `${page.map(copyLine).join('\n')}\n`
}

const copyLine = (values: readonly CopyValue[]): string => values.map(copyText).join('\t')

const SPECIAL = /[\\\t\n\r]/
const SPECIALS = /[\\\t\n\r]/g
const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' }
// Few texts hold a sign of COPY's own: to look costs half of what replacing does.
const escapeText = (text: string): string =>
  SPECIAL.test(text) ? text.replace(SPECIALS, (char) => ESCAPES[char] ?? char) : text

function copyText(value: CopyValue): string {
  if (value === null) return '\\N'
  if (typeof value === 'string') return escapeText(value)
  if (typeof value === 'number') return String(value)
  if (typeof value === 'boolean') return value ? 't' : 'f'
  if (Buffer.isBuffer(value)) return `\\\\x${value.toString('hex')}`
  return escapeText(arrayText(value as readonly string[]))
}

const arrayText = (items: readonly string[]): string =>
  `{${items.map((item) => `"${item.replace(/["\\]/g, '\\$&')}"`).join(',')}}`
