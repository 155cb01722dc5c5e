import { readFile } from 'node:fs/promises'
import { MOST_REPLAYED, replayFill } from '@upper-field/core/fill'
import { z } from 'zod'
import { print } from './print'

const Price = z.number().nonnegative()
const Input = z.object({
  providers: z
    .array(
      z.object({ id: z.string(), charge: z.object({ per: z.enum(['call', 'candidate', 'accepted']), price: Price }) }),
    )
    .min(1)
    .max(MOST_REPLAYED)
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'two providers of one id'),
  checkPrice: Price,
  contacts: z.array(
    z.object({ id: z.string(), answers: z.record(z.string(), z.array(z.object({ usable: z.boolean() }))) }),
  ),
  budget: Price.nullish(),
})

/** Prints what every order of the providers would have found and cost, from the answers of all of them. */
export async function fillReplay([path]: string[]): Promise<void> {
  if (!path) throw new Error('Name a file with the answers.')
  const parsed = Input.safeParse(jsonOf(await readFile(path, 'utf8'), path))
  if (!parsed.success) throw new Error(`${path}: ${z.prettifyError(parsed.error)}`)
  await print(`${JSON.stringify(replayFill(parsed.data))}\n`)
}

function jsonOf(text: string, path: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw new Error(`${path} is no JSON.`)
  }
}
