import type { CheckSettings } from '@upper-field/contract'
import { readCheckSettings } from '../check/settings'
import type { Services } from '../services'

/** How checks are done, as it was a second ago at most: programs that ask often need not have it looked up each time. */
const settingsOf = new WeakMap<Services['db'], { readonly at: number; readonly set: Promise<CheckSettings> }>()
const KEPT = 1000

export function settingsNow({ db }: Services): Promise<CheckSettings> {
  const kept = settingsOf.get(db)
  if (kept && performance.now() - kept.at < KEPT) return kept.set
  const set = readCheckSettings(db)
  settingsOf.set(db, { at: performance.now(), set })
  // A failure is not kept.
  set.catch(() => settingsOf.delete(db))
  return set
}
