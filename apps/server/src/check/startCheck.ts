import type { CheckEstimate, CheckOf } from '@upper-field/contract'
import type { Db } from '../db/database'
import { Problem } from '../http/problem'
import { createJob, type JobRow } from '../jobs/store'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'
import { factTerms } from './openFacts'
import type { Subject } from './subjects'

/** Lines cannot be checked: nobody is there to ask. */
export const noRegister = (): Problem => nobodyToAsk('numbers')

const nobodyToAsk = (of: CheckOf): Problem =>
  new Problem(
    409,
    NOBODY[of].code,
    `No ${NOBODY[of].service} is connected. An owner can connect one under Providers. Nothing was asked.`,
  )

const NOBODY: Readonly<Record<CheckOf, { readonly code: string; readonly service: string; readonly one: string }>> = {
  numbers: { code: 'no-register', service: 'line register', one: 'number' },
  addresses: { code: 'no-verifier', service: 'e-mail verifier', one: 'address' },
  'do-not-call': { code: 'no-do-not-call', service: 'do-not-call register', one: 'number' },
}

interface AskedFor {
  readonly listId: string
  readonly filter: string
  /** The most that was agreed to. */
  readonly agreed: number
  readonly startedBy: string
}

/**
 * Starts asking about whom a filter chooses. What exactly is asked about the job itself writes down: of a large list that takes
 * seconds. Throws a problem where nobody can be asked, or it would cost more than agreed.
 * @param estimate what it comes to, as it was worked out lately
 */
export async function startCheck<A>(
  tx: Db,
  subject: Subject<A>,
  { listId, filter, agreed, startedBy }: AskedFor,
  estimate: CheckEstimate,
): Promise<JobRow> {
  const { of } = subject
  const terms = await factTerms(tx, subject)
  if (terms === null) throw nobodyToAsk(of)
  if (estimate.toAsk === 0)
    throw new Problem(
      409,
      'nothing-to-ask',
      `Every ${NOBODY[of].one} chosen has a fresh answer. There is nothing to pay for.`,
    )
  if (estimate.most > agreed)
    throw new Problem(
      409,
      'costs-more',
      `This would now ask about ${estimate.toAsk.toLocaleString('en')} ${subject.names.many === 'emails' ? 'addresses' : 'numbers'} and cost more than was agreed. Nothing was asked.`,
    )
  await refuseOverLimit(tx, estimate.most)
  await refuseOverProviderLimit(tx, terms.id, estimate.most)
  return createJob(tx, {
    kind: 'check',
    listId,
    unit: of,
    total: estimate.toAsk,
    payload: { of, filter, agreed: estimate.most, provider: terms.id },
    startedBy,
  })
}
