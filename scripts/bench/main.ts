import { bringInBench } from './bringIn'
import { parseBench } from './parse'
import { readBench } from './read'

const BENCHES = { read: readBench, parse: parseBench, 'bring-in': bringInBench } as const

// Speed as ratios against a baseline in the same run: seconds say more about the machine than about the code.
const [name = '', ...args] = process.argv.slice(2)
if (!(name in BENCHES)) {
  console.error('Usage: npm run bench -- read | parse | bring-in [--rows N]')
  process.exit(2)
}
const at = args.indexOf('--rows')
await BENCHES[name as keyof typeof BENCHES]({ rows: at === -1 ? null : Number(args[at + 1]) })
