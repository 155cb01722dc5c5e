import { FILE_FORM, headingsOf, shapeOf } from '@upper-field/core/send'
import { eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'
import { batches } from '../db/schema'
import { memberIs } from '../db/spans'
import { findList } from '../lists/routes'
import { findDestination } from './destinations'
import { extrasOf } from './extras'
import { type EditionRow, layoutOf } from './fileText'

/**
 * What a prepared file holds, where it comes from and its digest, as a data package (Frictionless Data Package,
 * version 2): for whoever is handed the file.
 */
export async function dataPackageOf(db: Db, edition: EditionRow): Promise<object> {
  const list = await findList(db, edition.listId)
  const kind = edition.form === 'people' ? layoutOf(edition).kind : 'csv'
  const fields = await headingsOfEdition(db, edition)
  return {
    $schema: 'https://datapackage.org/profiles/2.0/datapackage.json',
    name: edition.fileName.replace(/\.\w+$/, ''),
    title: list.name,
    created: edition.createdAt.toISOString(),
    sources: await sourcesOf(db, edition),
    resources: [
      {
        name: edition.fileName.replace(/\.\w+$/, ''),
        path: edition.fileName,
        format: FILE_FORM[kind].ending,
        mediatype: FILE_FORM[kind].type.replace(/;.*/, ''),
        ...(kind === 'xlsx' ? {} : { encoding: 'utf-8' }),
        bytes: edition.bytes,
        hash: `sha256:${edition.sha256}`,
        ...(kind === 'csv' ? { dialect: { delimiter: edition.layout?.delimiter ?? ',' } } : {}),
        ...(kind === 'vcard'
          ? {}
          : { schema: { fields: fields.map((name) => ({ name, type: 'string' })), missingValues: [''] } }),
      },
    ],
  }
}

/** Fields are named once each: a heading that stands there several times is numbered. */
async function headingsOfEdition(db: Db, edition: EditionRow): Promise<readonly string[]> {
  const { listId, form, destination, takes, batchId } = edition
  if (form !== 'people') {
    const shape = shapeOf(await findDestination(db, destination), takes)
    return numbered(shape ? headingsOf(shape) : [])
  }
  const layout = layoutOf(edition)
  const own = layout.columns.map(({ heading }) => heading)
  if (batchId !== null) {
    const [batch] = await db.select().from(batches).where(eq(batches.id, batchId))
    return numbered([...(batch?.headings ?? []), ...own])
  }
  const extras = layout.hasExtras ? (await extrasOf(db, listId, [])).headings : []
  return numbered([...own, ...extras])
}

function numbered(headings: readonly string[]): readonly string[] {
  const seen = new Map<string, number>()
  return headings.map((heading) => {
    const n = (seen.get(heading) ?? 0) + 1
    seen.set(heading, n)
    return n === 1 ? heading : `${heading} ${n}`
  })
}

/** The batches that those in the file came with. */
async function sourcesOf(db: Db, { id, listId }: EditionRow): Promise<readonly { title: string; path: string }[]> {
  return readRows(db, { title: text, path: text })`
    select distinct b.name as title, b.file_name as path from batches b where b.list_id = ${listId} and exists (
      select 1 from edition_members m join contacts c on ${memberIs(sql`m`, sql`c.id`)}
      where c.batch_id = b.id and m.edition_id = ${id}) order by 1`
}
