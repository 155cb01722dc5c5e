import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from '@jest/globals'
import { findBinaries } from '../../../../scripts/postgres.mjs'
import { unseal } from '../../src/connections/seal'
import { prepareDatabase } from '../../src/prepareDatabase'
import { startHttp } from '../../src/startHttp'
import {
  bringText,
  configFor,
  freshDatabase,
  newList,
  OWNER,
  SEALING_SECRET,
  signedIn,
  startTestServer,
} from './harness'

/** A command as `docs/operations.md` gives it. */
const documented = (name: string): string =>
  new RegExp(`\`\`\`sh ${name}\\n([\\s\\S]*?)\`\`\``).exec(readFileSync('docs/operations.md', 'utf8'))?.[1] ?? ''

const run = (command: string, env: Record<string, string>) =>
  execFileSync('sh', ['-c', command], {
    env: { ...process.env, PATH: `${findBinaries()}:${process.env.PATH}`, ...env },
    stdio: ['ignore', 'ignore', 'pipe'],
  })

describe('a backup, as the documentation says', () => {
  it('is restored into an empty database: people, lists, files and sealed keys are there', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'upper-field-backup-'))
    const BACKUP = join(folder, 'backup')
    const server = await startTestServer()
    const listId = await newList(server.api, 'Autumn')
    await bringText(server.api, listId, 'name,phone\nMaren,+447911204481\nTom,+447911204482\n')
    await server.api.call('changeConnection', {
      params: { provider: 'tansy' },
      body: { baseUrl: 'http://127.0.0.1:1', key: 'a key' },
    })
    expect(documented('backup')).toContain('pg_dump')
    run(documented('backup'), { DATABASE_URL: server.databaseUrl, BACKUP })
    await server.stop()

    const restored = await freshDatabase({ isEmpty: true })
    run(documented('restore'), { DATABASE_URL: restored, BACKUP })
    rmSync(folder, { recursive: true })
    const config = await configFor(restored)
    await prepareDatabase(config)
    const http = await startHttp(config)
    const api = await signedIn(`http://127.0.0.1:${http.port}`, OWNER)
    expect(await api.call('readLists')).toMatchObject([{ id: listId, name: 'Autumn', contacts: 2 }])
    const { contacts } = await api.call('readContacts', { params: { listId } })
    expect(contacts.map(({ number }) => number)).toEqual(['+447911204481', '+447911204482'])
    const { rows } = await http.services.pool.query('select sealed_key from connections')
    expect(unseal(rows[0].sealed_key, SEALING_SECRET)).toBe('a key')
    await http.stop()
  })
})
