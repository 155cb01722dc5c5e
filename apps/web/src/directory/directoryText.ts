import type { DirectoryPlan, DirectorySearch } from '@upper-field/contract'
import { isUnderWay, type Job } from '@upper-field/contract'
import { count, money, plural } from '../words/format'

const businesses = (n: number): string => plural(n, 'business', 'businesses')

/** What a search comes to, as sentences. */
export function planText({ total, leftOut, named, isNamedInPart, price, pricePer, calls }: DirectoryPlan): string[] {
  if (total === 0) return ['The directory has none there.']
  return [
    `The directory has ${businesses(total)} there.`,
    leftOut > 0
      ? `${count(leftOut)} of them are in this list already, or suppressed: it leaves those out, for nothing.`
      : named > 0
        ? 'None of them is in this list already, or suppressed.'
        : '',
    isNamedInPart
      ? 'There is more in this list than the directory can be told of: some that are known may be paid for, and are not taken.'
      : '',
    pricePer === 'candidate'
      ? `${money(price)} for each business it tells of.`
      : `${money(price)} for each of ${plural(calls, 'page')}.`,
  ].filter(Boolean)
}

/** What became of the businesses a directory told of; `left-out` are those it did not tell, for nothing. */
export const BECAME: Readonly<Record<keyof DirectorySearch['became'], string>> = {
  taken: 'in the batch',
  'there-already': 'reached by a number or address this list has',
  suppressed: 'suppressed',
  closed: 'closed for good',
  'told-before': 'told of before',
}

/** Where a search stands, in a line. */
export function standsAt(search: DirectorySearch, job: Pick<Job, 'state'> | undefined): string {
  const told = Object.values(search.became).reduce((sum, n) => sum + n, 0)
  if (job && isUnderWay(job)) return `${count(told + search.leftOut)} of ${businesses(search.total)} so far`
  if (search.isWhole) return `${businesses(told)} told of`
  const left = Math.max(0, search.total - told - search.leftOut)
  if (job?.state === 'failed' || job?.state === 'stopped' || job?.state === 'paused')
    return `${job.state} with ${businesses(left)} left`
  return `ended at its amount, ${businesses(left)} left`
}
