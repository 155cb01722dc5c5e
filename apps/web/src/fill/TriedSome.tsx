import { useReadFillsQuery } from '../api'
import { useListView } from '../shell/useListView'
import { count, money } from '../words/format'

/** What trying some has taught about the others. */
export function TriedSome() {
  const { listId } = useListView()
  const { data: runs = [] } = useReadFillsQuery({ params: { listId } })
  const [run] = runs
  if (!run?.rest) return null
  const { usable, cost, contacts } = run.rest
  return (
    <section aria-label="What was tried" className="border-t border-line pt-3">
      <p>
        Of <span className="num">{count(run.contacts)}</span> tried, <span className="num">{count(run.found)}</span>{' '}
        were found for {money(run.spent)}. For the other <span className="num">{count(contacts)}</span> that tells{' '}
        <span className="num font-semibold">
          {count(usable.low)} to {count(usable.high)}
        </span>{' '}
        usable for{' '}
        <span className="num font-semibold">
          {money(cost.low)} to {money(cost.high)}
        </span>
        .
      </p>
      <p className="text-[13px] text-soft">The ranges hold nine of ten tries like this one.</p>
    </section>
  )
}
