import { fillReplay } from './fillReplay'
import { harvest } from './harvest'
import { normal } from './normal'
import { open } from './open'
import { pair } from './pair'
import { prepare } from './prepare'
import { read } from './read'
import { tidy } from './tidy'

const VERBS = { open, read, tidy, pair, normal, prepare, 'fill-replay': fillReplay, harvest } as const
const USAGE = `Usage: npm run -s tool -- VERB …
  open FILE [--rows N] [--sheet NAME] [--country GB] [--encoding E] [--delimiter D] [--headings ROW|none]
       [--merged every|first] [--hidden]  what a file of any kind holds, as JSON
  read                                   JSON lines {"raw","country","from"} on standard input, one reading a line;
                                         "from" is where it is dialled
  tidy --routine FILE.json IN.csv [--country GB]
                                         the tidied table as CSV; columns are recognised as at bring in
  pair IN.csv [--decide FILE] [--country GB]
                                         who is one person by itself, as row_id,group_id,score; pairs left to a
                                         person go to the file
  normal                                 JSON lines {"value","form":[steps],"country"} on standard input, each as
                                         {"normal","sha256"}, in order
  prepare --destination FILE.json IN.csv [--takes people|companies] [--plain] [--country GB]
                                         the prepared audience of a clean CSV, as a destination is declared
  fill-replay FILE.json                  what every order of the providers would have found and cost, as JSON
  harvest FILE.html --url ADDRESS [--country GB]
                                         the numbers and addresses on one page, as JSON`

const [verb = '', ...args] = process.argv.slice(2)
if (!(verb in VERBS)) {
  console.error(USAGE)
  process.exit(2)
}
// A reader that has seen enough (`| head`) closes the pipe: that is no failure.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1))
try {
  await VERBS[verb as keyof typeof VERBS](args)
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exit(1)
}
