import { spawn } from 'node:child_process'
import type { ApiClient } from '@upper-field/contract'
import { keysOf } from '@upper-field/standins'
import { freePort } from '../postgres.mjs'

/** Keys by which stand-ins are called here. */
export const STAND_IN_KEYS = keysOf((service) => `key of ${service}`)

/** Connects every provider to its stand-in. */
export async function connectStandIns(api: ApiClient, { url }: StandInServer): Promise<void> {
  for (const [provider, key] of Object.entries(STAND_IN_KEYS))
    await api.call('changeConnection', { params: { provider }, body: { baseUrl: url, key } })
}

export interface StandInServer {
  readonly url: string
  stop(): void
}

/** Stand-ins of a world for so many rows, which wait for nothing before they answer. */
export async function startStandIns(rows: number): Promise<StandInServer> {
  const port = await freePort()
  const child = spawn('node', ['apps/standins/dist/main.js'], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      STANDINS_PORT: String(port),
      STANDINS_SPEED: '1000000',
      WORLD_ROWS: String(rows),
      STANDIN_KEYS: JSON.stringify(STAND_IN_KEYS),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (chunk) => String(chunk).includes('listen on') && resolve())
    child.once('exit', () => reject(new Error('the stand-ins ended by themselves')))
  })
  return { url: `http://127.0.0.1:${port}`, stop: () => child.kill('SIGTERM') }
}
