import { createInterface } from 'node:readline'
import { readPhoneCell } from '@upper-field/core/phone'
import { z } from 'zod'
import { print } from './print'

const Line = z.object({ raw: z.string(), country: z.string().nullish() })

/** Reads phone cells from standard input, one JSON object a line, and prints one reading a line, in order. */
export async function read(): Promise<void> {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (line.trim() === '') continue
    const answer = JSON.stringify(readingOf(line))
    await print(`${answer}\n`)
  }
}

/** A line that is no question gets an error in its place, so that answers stay beside their questions. */
function readingOf(line: string): unknown {
  try {
    const { raw, country } = Line.parse(JSON.parse(line))
    return readPhoneCell(raw, { country: country ?? null })
  } catch {
    return { error: 'This line is no JSON object with "raw" and, if known, "country".' }
  }
}
