import { readFileSync } from 'node:fs'

/** Seconds of reading, milliseconds of loading. */
export interface ColdRun {
  readonly reading: number
  readonly loading: number
}

/** Loads a reader and reads all cells of a file once; what it took is printed as JSON. */
export async function runCold(load: () => Promise<(cell: { raw: string; country: string }) => unknown>): Promise<void> {
  const cells = JSON.parse(readFileSync(process.argv[2] ?? '', 'utf8')) as { raw: string; country: string }[]
  const start = performance.now()
  const read = await load()
  const loaded = performance.now()
  for (const cell of cells) read(cell)
  const run: ColdRun = { loading: loaded - start, reading: (performance.now() - loaded) / 1000 }
  console.log(JSON.stringify(run))
}
