import { createInterface } from 'node:readline'
import {
  dialledFrom,
  formatNumber,
  nearestFixes,
  numberFacts,
  type ReadNumber,
  readPhoneCell,
} from '@upper-field/core/phone'
import { z } from 'zod'
import { print } from './print'

const Line = z.object({ raw: z.string(), country: z.string().nullish(), from: z.string().nullish() })

/** Reads phone cells from standard input, one JSON object a line, and prints one reading a line, in order. */
export async function read(): Promise<void> {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (line.trim() === '') continue
    const answer = JSON.stringify(readingOf(line))
    await print(`${answer}\n`)
  }
}

/** How a number is written and dialled, and what the plan tells of it. */
const told = ({ e164, lineType }: ReadNumber, from: string | null) => ({
  national: formatNumber(e164, 'national'),
  international: formatNumber(e164),
  ...(from === null ? {} : { dialled: dialledFrom(e164, from) }),
  ...numberFacts(e164, lineType),
})

/** A line that is no question gets an error in its place, so that answers stay beside their questions. */
function readingOf(line: string): unknown {
  try {
    const { raw, country = null, from = null } = Line.parse(JSON.parse(line))
    const reading = readPhoneCell(raw, { country })
    const numbers = reading.numbers.map((number) => ({ ...number, ...told(number, from) }))
    return { ...reading, numbers, ...(reading.problem === null ? {} : { fixes: nearestFixes(raw, country) }) }
  } catch {
    return { error: 'This line is no JSON object with "raw" and, if known, "country" and "from".' }
  }
}
