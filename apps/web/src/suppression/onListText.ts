import type { Scope } from '@upper-field/core/split'
import { date } from '../words/format'
import { SCOPE } from '../words/sentences'

/** Which list holds somebody, and what it keeps them out of. */
export const onListText = (told: { readonly list: string; readonly scope: Scope; readonly addedAt: string }): string =>
  `${told.scope === 'all' ? 'On' : `Not for ${SCOPE[told.scope]}: on`} “${told.list}” since ${date(told.addedAt)}`
