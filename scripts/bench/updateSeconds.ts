import { execFile } from 'node:child_process'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { findBinaries } from '../postgres.mjs'

/** How long an update of one column of every contact takes, in seconds. It is taken back. */
export async function updateSeconds(url: string): Promise<number> {
  const sql = "begin; update contacts set title = title || ''; rollback"
  const start = performance.now()
  // Waited for, not blocked on: the server would close the idle connection meanwhile.
  await promisify(execFile)(join(findBinaries() ?? '', 'psql'), ['-X', '-q', '-c', sql, url])
  return (performance.now() - start) / 1000
}
