import { actsBench } from './acts'
import { bringInBench, slowLineBench } from './bringIn'
import { checkBench } from './check'
import { fillBench } from './fill'
import { judgeBench } from './judge'
import { pairBench } from './pair'
import { pairListBench } from './pairList'
import { parseBench } from './parse'
import { readBench } from './read'
import { replayBench } from './replay'
import { sendBench } from './send'
import { splitBench } from './split'
import { suppressBench } from './suppress'
import { tidyBench } from './tidy'
import { viewsBench } from './views'

const BENCHES = {
  read: readBench,
  parse: parseBench,
  'bring-in': bringInBench,
  'slow-line': slowLineBench,
  tidy: tidyBench,
  pair: pairBench,
  'pair-list': pairListBench,
  replay: replayBench,
  check: checkBench,
  fill: fillBench,
  split: splitBench,
  suppress: suppressBench,
  send: sendBench,
  judge: judgeBench,
  acts: actsBench,
  views: viewsBench,
} as const

// Speed as ratios against a baseline in the same run: seconds say more about the machine than about the code.
const [name = '', ...args] = process.argv.slice(2)
if (!(name in BENCHES)) {
  console.error(
    'Usage: npm run bench -- read | parse | bring-in | slow-line | tidy | pair | pair-list | replay | check | fill | split | suppress | send | judge | acts | views [--rows N]',
  )
  process.exit(2)
}
const at = args.indexOf('--rows')
await BENCHES[name as keyof typeof BENCHES]({ rows: at === -1 ? null : Number(args[at + 1]) })
