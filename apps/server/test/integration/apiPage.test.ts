import { execFile } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, it } from '@jest/globals'
import { newList, startTestServer } from './harness'

const PAGE = readFileSync(join(process.cwd(), 'docs/api.md'), 'utf8')
const blocks = [...PAGE.matchAll(/```(sh|json)\n([\s\S]*?)```/g)].map(([, kind = '', text = '']) => ({ kind, text }))
const run = promisify(execFile)

it('what the page about calls says is so', async () => {
  const server = await startTestServer()
  const listId = await newList(server.api)
  const { id } = await server.api.call('makeSuppressionList', { body: { name: 'Out', kind: 'opt-outs' } })
  const { secret } = await server.api.call('makeMachineKey', {
    body: { name: 'The page', scopes: ['check', 'add', 'read', 'suppress'] },
  })
  const env = { ...process.env, UPPER_FIELD: server.url, KEY: secret, LIST: listId, OUT: id }
  const told: { readonly says: unknown; readonly is: unknown }[] = []
  let answer = ''
  for (const { kind, text } of blocks) {
    if (kind === 'sh') answer = (await run('bash', ['-c', text], { env })).stdout
    else told.push({ says: JSON.parse(text), is: JSON.parse(answer) })
  }
  await server.stop()
  expect(told).toHaveLength(5)
  for (const { says, is } of told) expect(is).toMatchObject(says as object)
})
