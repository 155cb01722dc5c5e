import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { decodePage, harvest as harvestPage } from '@upper-field/core/harvest'
import { print } from './print'

/** No page of a business is as long as this, in bytes. */
const LONGEST = 20_000_000

/** Prints the numbers and addresses on one page as JSON. */
export async function harvest(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { url: { type: 'string' }, country: { type: 'string' } },
  })
  const [path] = positionals
  if (!path) throw new Error('Name an HTML file.')
  if (!values.url) throw new Error('Say where the page stands: --url ADDRESS')
  const bytes = readFileSync(path)
  if (bytes.length > LONGEST)
    throw new Error(`${path} is too long to be a page: ${LONGEST / 1_000_000} MB are read at most.`)
  const { findings, business } = harvestPage(decodePage(bytes), {
    url: values.url,
    country: values.country?.toUpperCase() ?? null,
  })
  await print(`${JSON.stringify({ findings, business })}\n`)
}
