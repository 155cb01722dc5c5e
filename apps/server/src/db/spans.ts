import { type SQL, sql } from 'drizzle-orm'

/**
 * Sets of contacts, a bit for each: a span stands for so many ids that follow each other. A file of a million people is
 * a hundred lines then, where a line for each of them took longer to write than the file.
 */
export const SPAN = 8192

/** The span an id is in, and its place there. @param id an expression of ours, a bigint */
export const spanOf = (id: SQL): SQL => sql`((${id}) / ${sql.raw(String(SPAN))})::int`
const placeOf = (id: SQL): SQL => sql`((${id}) % ${sql.raw(String(SPAN))})::int`

/** The first and the last id of a span. */
export const firstOf = (span: SQL): SQL => sql`${span}::bigint * ${sql.raw(String(SPAN))}`
export const lastOf = (span: SQL): SQL => sql`${firstOf(span)} + ${sql.raw(String(SPAN - 1))}`

/** True where the bits of the span an id is in hold it. (The planner takes `= 1` for rare, and sorts what it could hash.) */
export const holdsId = (bits: SQL, id: SQL): SQL => sql`get_bit(${bits}, ${placeOf(id)}) > 0`

/** True where a line of `edition_members` holds an id. @param line its alias */
export const memberIs = (line: SQL, id: SQL): SQL =>
  sql`${line}.span = ${spanOf(id)} and ${holdsId(sql`${line}.bits`, id)}`

export const withoutId = (bits: SQL, id: SQL): SQL => sql`set_bit(${bits}, ${placeOf(id)}, 0)`

/** Whether one of `contacts` was sent to anybody, in a file or an audience: a condition as text. */
export const IS_SENT = `exists (select 1 from sent_contacts sent where sent.span = contacts.id / ${SPAN} and get_bit(sent.bits, (contacts.id % ${SPAN})::int) = 1)`

const EMPTY = sql.raw(`repeat('0', ${SPAN})::bit(${SPAN})`)

/**
 * True where lines of `(span, bits)` hold an id. They are put side by side once in a statement: to look for the line of
 * each id takes ten times as long where a large list is looked through.
 * @param lines a query of such lines, each span once, that asks nothing of the id
 */
export const anyHolds = (lines: SQL, id: SQL): SQL => sql`coalesce(get_bit((array(
  with lines as materialized (${lines})
  select coalesce(lines.bits, ${EMPTY}) from generate_series(0, (select max(span) from lines)) as place (span)
  left join lines on lines.span = place.span order by place.span))[${spanOf(id)} + 1], ${placeOf(id)}) > 0, false)`

/** The bits of the ids of one span: an aggregate. */
export const bitsOf = (id: SQL): SQL => sql`bit_or(set_bit(${EMPTY}, ${placeOf(id)}, 1))`

/** Bits without those of another span; of none where there is no other. */
export const without = (bits: SQL, others: SQL): SQL => sql`(${bits} & ~coalesce(${others}, ${EMPTY}))`

/** Ids as spans and their bits, as PostgreSQL reads bits in hexadecimal. */
export function inSpans(ids: Iterable<number>): ReadonlyMap<number, string> {
  const spans = new Map<number, Uint8Array>()
  for (const id of ids) {
    const span = Math.floor(id / SPAN)
    const bits = spans.get(span) ?? new Uint8Array(SPAN / 8)
    spans.set(span, bits)
    const place = id % SPAN
    bits[place >> 3] = (bits[place >> 3] ?? 0) | (0x80 >> (place & 7))
  }
  return new Map([...spans].map(([span, bits]) => [span, `X${Buffer.from(bits).toString('hex')}`]))
}
