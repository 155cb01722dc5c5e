import { execFileSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { readPhoneCell } from '@upper-field/core/phone'
import { writeCell } from '@upper-field/demo'
import { createRandom, createWorld } from '@upper-field/standins/world'
import { BENCH } from './benchServer'
import type { ColdRun } from './cold'
import { perSecond } from './perSecond'
import { callReference } from './reference'

/** Many short turns: what else the machine does then falls on both. */
const ROUNDS = 21
const SECONDS = 0.3

/** Messy cells read by `readPhoneCell` against the reference library called directly, in turns, on one core. */
export async function readBench({ rows }: { rows: number | null }): Promise<void> {
  const cells = messyCells(rows ?? 20_000)
  const ours = ({ raw, country }: { raw: string; country: string }) => readPhoneCell(raw, { country })
  const ratios: number[] = []
  let best = { ours: 0, reference: 0 }
  for (let round = 0; round <= ROUNDS; round++) {
    const a = perSecond(cells, callReference, SECONDS)
    const b = perSecond(cells, ours, SECONDS)
    if (round === 0) continue
    ratios.push(b / a)
    best = { ours: Math.max(best.ours, b), reference: Math.max(best.reference, a) }
  }
  ratios.sort((a, b) => a - b)
  console.log(`${cells.length} messy cells, ${ROUNDS} rounds after one to warm up`)
  console.log(`reference called directly (parse, valid, region, type, E.164): ${Math.round(best.reference)} a second`)
  console.log(`readPhoneCell (all of that, and the repairs): ${Math.round(best.ours)} a second`)
  console.log(`ratio: ${ratios[ROUNDS >> 1]?.toFixed(2)} (${ratios[0]?.toFixed(2)} to ${ratios.at(-1)?.toFixed(2)})`)
  coldBench()
}

const COLD = 200_000

/** The first cells after the start of a process of its own, with what loading the module took. */
function coldBench(): void {
  const file = join(BENCH, 'cells.json')
  mkdirSync(BENCH, { recursive: true })
  writeFileSync(file, JSON.stringify(messyCells(COLD)))
  const run = (program: string) =>
    JSON.parse(execFileSync('node', [join(BENCH, 'code', program), file], { encoding: 'utf8' })) as ColdRun
  const ratios: number[] = []
  const loading: number[] = []
  for (let round = 0; round < COLD_ROUNDS; round++) {
    const [ours, theirs] = [run('coldOurs.js'), run('coldReference.js')]
    ratios.push(theirs.reading / ours.reading)
    loading.push(ours.loading)
  }
  ratios.sort((a, b) => a - b)
  loading.sort((a, b) => a - b)
  const middle = COLD_ROUNDS >> 1
  console.log(
    `first ${COLD} cells of a new process: ratio ${ratios[middle]?.toFixed(1)} (${ratios[0]?.toFixed(1)} to ${ratios.at(-1)?.toFixed(1)})`,
  )
  console.log(
    `loading our module beyond Node's own start: ${loading[middle]?.toFixed(0)} ms (${loading[0]?.toFixed(0)} to ${loading.at(-1)?.toFixed(0)})`,
  )
}

const COLD_ROUNDS = 3

function messyCells(count: number): { raw: string; country: string }[] {
  const world = createWorld('bench', { people: 2000 })
  const random = createRandom('bench cells')
  return Array.from({ length: count }, () => {
    const person = random.pick(world.people)
    const { cell } = writeCell({ number: random.chance(0.5) ? person.mobile : person.desk, person, random })
    return { raw: flat(cell), country: person.company.place.country }
  })
}

/** A text as a file gives it: not the joined parts it was made from, which are slow to look at for everybody. */
const flat = (text: string): string => Buffer.from(text).toString()
