import { ANSWER_AGES, type CheckOf } from '@upper-field/contract'
import { useReadAnswerAgesQuery } from '../api'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'
import { AGE, allAges } from './ages'

/** How long ago what is known was told, of all that the chosen contacts hold. */
export function AnswerAgesLine({ of }: { of: CheckOf }) {
  const { listId, text } = useListView()
  const { data } = useReadAnswerAgesQuery({ params: { listId }, query: { filter: text, of } })
  if (!data || data.length === 0) return null
  const { byAge, stale } = allAges(data)
  return (
    <p className="-mt-1 pb-3 text-[13px] text-soft">
      {of === 'addresses' ? 'Addresses' : 'Numbers'} answered for:{' '}
      {ANSWER_AGES.filter((age) => (byAge[age] ?? 0) > 0).map((age, i) => (
        <span key={age}>
          {i > 0 ? ' · ' : ''}
          {AGE[age]} <span className="num text-ink">{count(byAge[age] ?? 0)}</span>
        </span>
      ))}
      {stale > 0 ? (
        <span className="text-straw-ink">
          {' '}
          · too old to rely on <span className="num">{count(stale)}</span>
        </span>
      ) : null}
    </p>
  )
}
