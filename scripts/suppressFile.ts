import { createHash } from 'node:crypto'
import type { ApiClient } from '@upper-field/contract'
import { suppressionRow, useOfColumn } from '@upper-field/core/pair'
import type { DemoFile } from '@upper-field/demo'
import { openFile, readFileRows, sourceOfBytes } from '@upper-field/files'

const PAGE = 5000

/** Brings a file to a suppression list through the API, its columns used as they are recognised. @returns how many entries were added */
export async function suppressFile(
  api: ApiClient,
  suppressionListId: string,
  { name, bytes }: Pick<DemoFile, 'name' | 'bytes'>,
  reason: string,
): Promise<number> {
  const source = sourceOfBytes(bytes)
  const opened = await openFile(source, name)
  if (opened.status === 'refused') throw new Error(`${name}: ${opened.problem}`)
  const { suggestions, firstRows } = opened.table
  const cellsOf = (column: number) => firstRows.map(({ cells }) => cells[column] ?? '')
  const uses = suggestions.map(({ field }, column) => useOfColumn(field, cellsOf(column)))
  const sha256 = createHash('sha256').update(bytes).digest('hex')
  const batch = await api.call('announceSuppressionBatch', {
    params: { suppressionListId },
    body: { name, sha256, reason },
  })
  let added = 0
  let page: { row: number; numbers: readonly string[]; emails: readonly string[] }[] = []
  const send = async () => {
    if (page.length === 0) return
    const params = { suppressionBatchId: batch.id }
    added += (await api.call('addSuppressionRows', { params, body: { rows: page } })).added
    page = []
  }
  for await (const { row, judged } of readFileRows(source, opened)) {
    if (judged.status !== 'read') continue
    if (page.push({ row, ...suppressionRow(judged.cells, uses) }) === PAGE) await send()
  }
  await send()
  return added
}
