import { type PairInput, pairInputOf } from '@upper-field/core/pair'
import { compileRoutine, proposeRoutine } from '@upper-field/core/tidy'
import { openFile, readFileRows, sourceOfBytes } from '@upper-field/files'
import { createWorld, type World, worldFor } from '@upper-field/standins/world'
import { type DemoFile, scenarioFiles } from '../src'

/** A contact of the demo and who it is in truth. */
export interface KnownContact {
  readonly input: PairInput
  readonly who: string
  readonly from: string
}

/** All contacts of the demo files, tidied as proposed, with the truth beside them. */
export async function knownContacts(rows: number): Promise<KnownContact[]> {
  const { seed, ...size } = worldFor(rows)
  return contactsOfWorld(createWorld(seed, size), rows)
}

/** The same of any world. */
export async function contactsOfWorld(world: World, rows: number): Promise<KnownContact[]> {
  const files = scenarioFiles(world, { rows }).filter(({ truth }) => truth.length > 0)
  return (await Promise.all(files.map(contactsOf))).flat()
}

async function contactsOf({ name, bytes, truth }: DemoFile): Promise<KnownContact[]> {
  const source = sourceOfBytes(bytes)
  const opened = await openFile(source, name)
  if (opened.status === 'refused') throw new Error(name)
  const mapping = opened.table.suggestions.map(({ field }) => field)
  const tidier = compileRoutine(proposeRoutine(mapping), { mapping, headings: opened.table.headings })
  const people = new Map(truth.map(({ row, person }) => [row, person]))
  const kind = name === 'quotation-requests.csv' ? 'consumer' : 'person'
  const found: KnownContact[] = []
  for await (const { row, judged } of readFileRows(source, opened)) {
    const person = people.get(row)
    if (judged.status !== 'read' || person === undefined) continue
    found.push({ input: pairInputOf(tidier.tidy(judged.cells)), who: `${kind} ${person}`, from: name })
  }
  return found
}
