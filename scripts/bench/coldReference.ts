import { runCold } from './cold'

await runCold(async () => (await import('./reference')).callReference)
