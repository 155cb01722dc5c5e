import type { FillEstimate } from '@upper-field/contract'
import { inputFor, PERSON_INPUTS, type PersonInput } from '@upper-field/core/fill'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { isAskable, mostOf, type PlanTerms, servingOf } from './plan'
import { answeredWithin, countLeftOut, type FillFor, readWanting, type WantingContact, wantingOf } from './wanting'

/** Who lacks something, whom each provider can be asked about, who is left out, and the most that can cost. */
export async function estimateFill(
  tx: Db,
  plan: PlanTerms,
  meant: FillFor & { readonly notAgainDays: number },
): Promise<Omit<FillEstimate, 'expected'>> {
  const wanting = await readWanting(tx, wantingOf(meant), plan.options)
  const lately = await askedLately(tx, meant.listId, meant.notAgainDays)
  const counts = new Map(plan.providers.map(({ id }) => [id, { askable: 0, askedLately: 0, lacksInput: 0 }]))
  let most = 0
  let nobody = 0
  for (const contact of wanting) {
    let worst = 0
    let isServed = false
    for (const provider of servingOf(plan, contact)) {
      const count = counts.get(provider.id)
      if (!count) continue
      if (!isAskable(plan, provider, contact)) count.lacksInput++
      else if (lately.has(askingOf(contact.id, provider.id))) count.askedLately++
      else {
        count.askable++
        worst += mostOf(provider, plan)
        isServed = true
      }
    }
    most += plan.options.perContact === null ? worst : Math.min(worst, plan.options.perContact)
    if (!isServed) nobody++
  }
  const lacking = plan.options.wants.map((want) => [want, wanting.filter(({ lacks }) => lacks.includes(want)).length])
  return {
    wanting: wanting.length,
    known: knownOf(wanting),
    lacking: Object.fromEntries(lacking),
    leftOut: { ...(await countLeftOut(tx, meant)), 'nobody-to-ask': nobody },
    providers: [...counts].map(([provider, count]) => ({ provider, ...count })),
    most,
  }
}

/** Of how many each thing is known that a provider may have to be told. */
function knownOf(wanting: readonly WantingContact[]): FillEstimate['known'] {
  const of = (input: PersonInput) => wanting.filter((one) => inputFor({ accepts: [input] }, one) !== null).length
  return Object.fromEntries(PERSON_INPUTS.map((input) => [input, of(input)])) as FillEstimate['known']
}

const askingOf = (contactId: number, provider: string): string => `${contactId} ${provider}`

/** Which provider has answered about which contact of a list within so many days. */
async function askedLately(tx: Db, listId: string, days: number): Promise<ReadonlySet<string>> {
  const { rows } = await tx.execute<{ contact_id: string; provider: string }>(
    sql`select contact_id, provider from attempts where list_id = ${listId} and ${answeredWithin(days)}`,
  )
  return new Set(rows.map(({ contact_id, provider }) => askingOf(Number(contact_id), provider)))
}
