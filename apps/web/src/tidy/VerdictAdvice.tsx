import { VERDICTS, type Verdict } from '@upper-field/core/phone'
import { useReadPilesQuery } from '../api'
import { ButtonLink, TextButton } from '../kit/Button'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'
import { VERDICT } from '../words/sentences'

const MEANS: Record<Verdict, string> = {
  clean: 'read as they stood',
  repaired: 'mended: the row keeps what stood there',
  doubtful: 'possible, but not in the plan',
  unreadable: 'something else, or digits lost',
  placeholder: 'made up by whoever filled the form',
  empty: 'nothing in any phone column',
}

/** Where the list stands after reading, and what to do next. */
export function VerdictAdvice() {
  const view = useListView()
  const { data } = useReadPilesQuery({ params: { listId: view.listId }, query: { filter: '' } })
  const total = Object.values(data?.verdict ?? {}).reduce((sum, n) => sum + n, 0)
  return (
    <>
      <h2>How the cells read</h2>
      <p className="pb-2 text-soft">Each contact by the cell its best number came from.</p>
      <dl>
        {VERDICTS.map((verdict) => (
          <div key={verdict} className="flex items-baseline justify-between gap-3 border-t border-line py-1.5">
            <dt>
              <TextButton
                onClick={() => view.setText(`verdict:${verdict}`)}
                className="font-semibold first-letter:uppercase inline-block"
              >
                {VERDICT[verdict]}
              </TextButton>
              <span className="block text-[13px] text-soft">{MEANS[verdict]}</span>
            </dt>
            <dd className="num">{count(data?.verdict[verdict] ?? 0)}</dd>
          </div>
        ))}
      </dl>
      <p className="flex justify-between border-t border-edge py-1.5 font-semibold">
        Together <span className="num">{count(total)}</span>
      </p>
      <div className="pt-3">
        <ButtonLink look="main" className="w-full" to={`/lists/${view.listId}/pair`}>
          Next: who stands here twice
        </ButtonLink>
      </div>
    </>
  )
}
