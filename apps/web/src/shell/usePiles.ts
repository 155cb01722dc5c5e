import type { Piles } from '@upper-field/contract'
import { useReadPilesQuery } from '../api'
import { estimateSign } from '../words/format'

interface Counted {
  readonly data: Piles | undefined
  /** How a count is begun: an estimate says that it is one. */
  readonly sign: string
}

/** Counts of whom a filter means: at once by an estimate where the list is large, exact as soon as everybody was counted. */
export function usePiles({ listId, text }: { readonly listId: string; readonly text: string }): Counted {
  const params = { listId }
  const quick = useReadPilesQuery({ params, query: { filter: text, estimate: 'yes' } })
  const whole = useReadPilesQuery({ params, query: { filter: text } }, { skip: quick.currentData?.isEstimate !== true })
  const data = whole.currentData ?? quick.data
  return { data, sign: estimateSign(data?.isEstimate === true) }
}
