import { describe, expect, it } from '@jest/globals'
import { compileRoutine, proposeRoutine } from '@upper-field/core/tidy'
import { openFile, readFileRows, sourceOfBytes } from '@upper-field/files'
import { createWorld, worldFor } from '@upper-field/standins/world'
import { type CellTruth, type DemoFile, scenarioFiles } from '../src'

const ROWS = 6000
const { seed, ...size } = worldFor(ROWS)
const world = createWorld(seed, size)
const files = scenarioFiles(world, { rows: ROWS }).filter(({ truth }) => truth.length > 0)
const OF_CONSUMERS = new Set(['quotation-requests.csv', 'customers.txt'])

/** What became of one thing the generator wrote, and whether it had hurt it. */
interface Outcome {
  readonly file: string
  readonly what: string
  readonly wasHurt: boolean
  readonly end: 'right' | 'in the queue' | 'wrong'
  readonly shown: string
}

async function outcomesOf({ name, bytes, truth }: DemoFile): Promise<Outcome[]> {
  const source = sourceOfBytes(bytes)
  const opened = await openFile(source, name)
  if (opened.status === 'refused') throw new Error(name)
  const mapping = opened.table.suggestions.map(({ field }) => field)
  const tidier = compileRoutine(proposeRoutine(mapping), { mapping, headings: opened.table.headings })
  const truths = new Map(truth.map((one) => [one.row, one]))
  const found: Outcome[] = []
  for await (const { row, judged } of readFileRows(source, opened)) {
    const one = truths.get(row)
    if (judged.status !== 'read' || !one) continue
    const tidied = tidier.tidy(judged.cells)
    const inQueue = new Set(tidied.hand.map(({ column }) => column))
    one.phones.forEach((phone, i) => {
      const read = tidied.readings[i]
      if (!read) return
      const e164s = read.reading.numbers.filter(({ valid }) => valid).map(({ e164 }) => e164)
      const isRight = e164s.join() === phone.e164s.join() && read.reading.verdict === phone.verdict
      const needsHand = phone.verdict === 'unreadable' || phone.verdict === 'doubtful'
      const end = !isRight ? 'wrong' : needsHand ? (inQueue.has(read.column) ? 'in the queue' : 'wrong') : 'right'
      found.push({ file: name, what: `number: ${phone.fault}`, wasHurt: isHurt(phone), end, shown: phone.cell })
    })
    if (!OF_CONSUMERS.has(name)) found.push(...valuesOf(name, judged.cells, one.person, tidied))
  }
  return found
}

const isHurt = ({ verdict, fault }: CellTruth): boolean =>
  verdict !== 'empty' && !['as it should be', 'national'].includes(fault)

/** Names, companies and postal codes against the person the row was written from. */
function valuesOf(
  file: string,
  cells: readonly string[],
  personId: number,
  { values }: ReturnType<ReturnType<typeof compileRoutine>['tidy']>,
): Outcome[] {
  const person = world.people[personId]
  if (!person) return []
  const told = (what: string, is: string, truths: readonly string[], asWritten: string): Outcome[] =>
    is === ''
      ? []
      : [{ file, what, wasHurt: !cells.includes(asWritten), end: truths.includes(is) ? 'right' : 'wrong', shown: is }]
  const { company } = person
  const full = `${person.given} ${person.family}`
  return [
    // A name given with an initial stays one: nothing is made up.
    ...told('name', values.fullName, [full, `${person.given[0]}. ${person.family}`, person.given], full),
    ...told('company', values.company, [company.name], company.name),
    ...told('postal code', values.postalCode, [company.postalCode], company.postalCode),
    ...told('country', values.country, [company.place.country], company.place.country),
  ]
}

describe('the demo, tidied by the routines proposed for its files', () => {
  it('has every fault mended rightly or in the queue, and nothing changed that was right', async () => {
    const outcomes = (await Promise.all(files.map(outcomesOf))).flat()
    const hurt = outcomes.filter(({ wasHurt }) => wasHurt)
    const whole = outcomes.filter(({ wasHurt }) => !wasHurt)
    const rate = (all: readonly Outcome[], ends: readonly string[]) =>
      `${all.filter(({ end }) => ends.includes(end)).length} of ${all.length}`
    console.log(
      `hurt: ${rate(hurt, ['right'])} mended, ${rate(hurt, ['in the queue'])} in the queue; right before: ${rate(whole, ['right', 'in the queue'])} still right`,
    )
    expect(hurt.length).toBeGreaterThan(2000)
    expect(whole.length).toBeGreaterThan(5000)
    expect(outcomes.filter(({ end }) => end === 'wrong').slice(0, 10)).toEqual([])
  })
})
