import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from '@jest/globals'
import type { Pool } from 'pg'
import { type Database, migrateDatabase, openDatabase } from '../../src/db/database'
import { isGathered } from '../../src/jobs/gathered'
import { freshDatabase, startServerOn } from './harness'
import { until } from './until'

const MIGRATIONS = join(process.cwd(), 'apps/server/migrations')
const folders: string[] = []
const open: Database[] = []
afterAll(async () => {
  for (const database of open) await database.close()
  for (const folder of folders) rmSync(folder, { recursive: true, force: true })
})

/** The migrations before one of them: a database as it was then. @param tag its name without what it is called by */
function migrationsBefore(tag: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'migrations-'))
  folders.push(folder)
  cpSync(MIGRATIONS, folder, { recursive: true })
  const path = join(folder, 'meta', '_journal.json')
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { tag: string }[] }
  const entries = journal.entries.filter((one) => one.tag < tag)
  writeFileSync(path, JSON.stringify({ ...journal, entries }))
  return folder
}

/** Inserts a line with what is said of it; what else it must have is empty. */
async function insert(pool: Pool, table: string, line: Readonly<Record<string, unknown>>): Promise<void> {
  const { rows } = await pool.query<{ name: string; type: string }>(
    `select column_name as name, data_type as type from information_schema.columns
     where table_name = $1 and is_nullable = 'NO' and column_default is null`,
    [table],
  )
  const empty = (type: string) => (type === 'text' ? '' : type === 'boolean' ? false : type === 'jsonb' ? '{}' : 0)
  const whole = { ...Object.fromEntries(rows.map(({ name, type }) => [name, empty(type)])), ...line }
  const names = Object.keys(whole)
  await pool.query(
    `insert into ${table} (${names.join(', ')}) values (${names.map((_, i) => `$${i + 1}`).join(', ')})`,
    Object.values(whole),
  )
}

const idsIn = async (pool: Pool, table: string, where: string): Promise<number[]> =>
  (
    await pool.query<{ id: string }>(
      `select span::bigint * 8192 + place as id from ${table} cross join generate_series(0, 8191) place
       where get_bit(bits, place) = 1 and ${where} order by 1`,
    )
  ).rows.map(({ id }) => Number(id))

it('take over who was sent, and who is in which file, as sets of bits', async () => {
  const database = openDatabase(await freshDatabase({ isEmpty: true }))
  open.push(database)
  const { pool } = database
  await migrateDatabase(database, migrationsBefore('0046'))
  const [listId, batchId, one, other] = [1, 2, 3, 4].map((n) => `6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d0${n}`)
  const ids = [1, 2, 8191, 8192, 8193, 20_000, 5_000_000]
  for (const id of ids)
    await insert(pool, 'contacts', { id, list_id: listId, batch_id: batchId, is_sent: id % 2 === 1, row: id })
  for (const id of ids) if (id !== 2) await insert(pool, 'edition_members', { edition_id: one, contact_id: id })
  await insert(pool, 'edition_members', { edition_id: other, contact_id: 8192 })

  await migrateDatabase(database, MIGRATIONS)
  expect(await idsIn(pool, 'sent_contacts', 'true')).toEqual(ids.filter((id) => id % 2 === 1))
  expect(await idsIn(pool, 'edition_members', `edition_id = '${one}'`)).toEqual(ids.filter((id) => id !== 2))
  expect(await idsIn(pool, 'edition_members', `edition_id = '${other}'`)).toEqual([8192])
  expect((await pool.query('select count(*)::int as n from contacts')).rows).toEqual([{ n: ids.length }])
})

it('count whom audiences hold, and let them be held against their lists anew', async () => {
  const database = openDatabase(await freshDatabase({ isEmpty: true }))
  open.push(database)
  const { pool } = database
  await migrateDatabase(database, migrationsBefore('0054'))
  const [listId, full, empty] = [1, 2, 3].map((n) => `6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d0${n}`)
  await insert(pool, 'lists', { id: listId, name: 'Owners' })
  for (const id of [full, empty]) await insert(pool, 'audiences', { id, list_id: listId, seen_version: 7 })
  for (const key of ['a', 'b', 'c'])
    await insert(pool, 'audience_members', { audience_id: full, key, delivery_id: listId, cells: [] })

  await migrateDatabase(database, MIGRATIONS)
  const { rows } = await pool.query('select id, people, seen_version from audiences order by id')
  expect(rows).toEqual([
    { id: full, people: 3, seen_version: '-1' },
    { id: empty, people: 0, seen_version: '-1' },
  ])
})

/** What is told of a contact that nobody can reach. */
const UNREACHED = {
  line_type: 'unknown',
  line_status: 'unknown',
  known_from: 'plan',
  verdict: 'empty',
  lane: 'parked',
  lane_reason: 'no-way-to-reach',
}

it('give each list a table of words, which is filled from what its contacts hold', async () => {
  const databaseUrl = await freshDatabase({ isEmpty: true })
  const database = openDatabase(databaseUrl)
  open.push(database)
  const { pool } = database
  await migrateDatabase(database, migrationsBefore('0050'))
  const lists = [1, 2].map((n) => `6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d0${n}`)
  for (const [i, listId] of lists.entries()) {
    const batchId = `7f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d0${i}`
    const facts = { headings: '[]', mapping: '[]', state: 'ready', is_indexed: true, rows: 1 }
    await insert(pool, 'lists', { id: listId, name: `List ${i}` })
    await insert(pool, 'batches', { id: batchId, list_id: listId, ...facts })
    const ids = { id: i + 1, list_id: listId, batch_id: batchId }
    await insert(pool, 'contacts', { ...ids, row: 1, search: `garden ${i}`, ...UNREACHED })
    await insert(pool, 'contact_words', { contact_id: i + 1, list_id: listId, words: `garden ${i}` })
  }

  const server = await startServerOn(databaseUrl)
  await until(async () => (await pool.query('select 1 from batches where not is_indexed')).rows.length === 0)
  for (const [i, listId] of lists.entries()) {
    expect((await pool.query(`select * from words."${listId}"`)).rows).toEqual([
      { contact_id: String(i + 1), words: `garden ${i}` },
    ])
    const { contacts } = await server.api.call('readContacts', { params: { listId }, query: { filter: 'garden' } })
    expect(contacts.map(({ id }) => id)).toEqual([i + 1])
  }
  await server.stop()
})

it('take checks and fills that were begun before as those whose questions are written down: nobody is added to them', async () => {
  const database = openDatabase(await freshDatabase({ isEmpty: true }))
  open.push(database)
  const { pool } = database
  await migrateDatabase(database, migrationsBefore('0055'))
  const listId = '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d01'
  await insert(pool, 'lists', { id: listId, name: 'Owners' })
  for (const kind of ['check', 'fill', 'tidy']) await insert(pool, 'jobs', { kind, list_id: listId, unit: 'contacts' })

  await migrateDatabase(database, MIGRATIONS)
  const { rows } = await pool.query('select kind, cursor from jobs order by kind')
  expect(rows.map(({ kind, cursor }) => [kind, isGathered({ cursor })])).toEqual([
    ['check', true],
    ['fill', true],
    ['tidy', false],
  ])
})
