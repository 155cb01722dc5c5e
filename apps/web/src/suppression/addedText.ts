import type { SuppressionAdded } from '@upper-field/contract'
import { count, plural } from '../words/format'

/** What became of entries: how many are new, and whom they mark now and later. */
export function addedText({
  added,
  known,
  marked,
  waiting,
  areLookedFor,
}: Pick<SuppressionAdded, 'added' | 'known' | 'marked' | 'waiting' | 'areLookedFor'>): string {
  const already = known > 0 ? `, ${count(known)} on the list already` : ''
  const later =
    waiting > 0
      ? ` ${plural(waiting, 'contact')} ${waiting === 1 ? 'is' : 'are'} being marked, in lists that are worked on as soon as that has ended; no file holds them from now on.`
      : ''
  const byHash = areLookedFor
    ? ' Who is behind the hashes is being looked for, list by list; no file holds them from now on.'
    : ''
  return `${plural(added, 'entry', 'entries')} added${already}. ${plural(marked, 'contact')} marked in all lists.${later}${byHash}`
}
