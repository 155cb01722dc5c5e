import { startStandIns } from './server'
import { worldFor } from './world'

const need = (name: string): string => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set`)
  return value
}

const standIns = await startStandIns({
  ...worldFor(Number(process.env.WORLD_ROWS ?? 0)),
  port: Number(process.env.STANDINS_PORT ?? 0),
  books: process.env.STANDINS_BOOKS,
  speed: Number(process.env.STANDINS_SPEED ?? 1),
  networkSpeed: Number(process.env.STANDINS_NETWORK_SPEED ?? process.env.STANDINS_SPEED ?? 1),
  keys: JSON.parse(need('STANDIN_KEYS')) as Readonly<Record<string, string>>,
})
console.log(`stand-ins listen on ${standIns.url}`)
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void standIns.stop().then(() => process.exit(0)))
