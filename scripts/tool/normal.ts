import { createHash } from 'node:crypto'
import { createInterface } from 'node:readline'
import { normalForm, whyNoStep } from '@upper-field/core/send'
import { z } from 'zod'
import { print } from './print'

const Asked = z.object({
  value: z.string().nullable().default(''),
  form: z.array(z.string()),
  country: z.string().nullable().optional(),
})

/** Prints the normal form of each value and the SHA-256 of its bytes in UTF-8, a JSON line for a JSON line. What is blank stays blank. */
export async function normal(): Promise<void> {
  let line = 0
  for await (const text of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    line++
    if (text.trim() === '') continue
    const { value, form, country } = asked(text, line)
    const formed = normalForm(value ?? '', form, { country: country?.toUpperCase() ?? null })
    const sha256 = formed === '' ? '' : createHash('sha256').update(formed, 'utf8').digest('hex')
    await print(`${JSON.stringify({ normal: formed, sha256 })}\n`)
  }
}

function asked(text: string, line: number): z.infer<typeof Asked> {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new Error(`Line ${line} is no JSON.`)
  }
  const read = Asked.safeParse(json)
  if (!read.success) throw new Error(`Line ${line}: ${z.prettifyError(read.error)}`)
  const wrong = read.data.form.map(whyNoStep).find((why) => why !== null)
  if (wrong) throw new Error(`Line ${line}: ${wrong}`)
  return read.data
}
