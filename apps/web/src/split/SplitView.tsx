import { LANES } from '@upper-field/core/split'
import { useReadPilesQuery } from '../api'
import { ButtonLink } from '../kit/Button'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { BECAUSE, COMPANY, LANE_WORD, NAME, NUMBER } from '../shell/columns'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'
import { LANE } from '../words/sentences'
import { Lanes } from './Lanes'

const COLUMNS = [NAME, COMPANY, NUMBER, LANE_WORD, BECAUSE]

/** Split: each contact in the one channel it suits; the sum is always in sight. */
export const SplitView = () => (
  <Bench piles={['lane', 'reason', 'call', 'line', 'country']} advice={<SumAdvice />}>
    <BenchTitle title="One lane for everyone">the first lane that takes a contact keeps it</BenchTitle>
    <Lanes />
    <ContactGrid columns={COLUMNS} />
  </Bench>
)

function SumAdvice() {
  const { listId } = useListView()
  const { data } = useReadPilesQuery({ params: { listId }, query: { filter: '' } })
  const counts = LANES.map((lane) => data?.lane[lane] ?? 0)
  const sum = counts.reduce((all, n) => all + n, 0)
  return (
    <div className="flex flex-col gap-3">
      <h2>The sum</h2>
      <dl>
        {LANES.map((lane, i) => (
          <div key={lane} className="flex justify-between border-t border-line py-1.5">
            <dt>{LANE[lane]}</dt>
            <dd className="num">{count(counts[i] ?? 0)}</dd>
          </div>
        ))}
        <div className="flex justify-between border-t border-edge py-1.5 font-semibold">
          <dt>Everybody</dt>
          <dd className="num">{count(sum)}</dd>
        </div>
      </dl>
      <p className="text-soft">
        Nobody is deleted: {plural(counts[3] ?? 0, 'contact')} wait in Parked until something about them changes.
      </p>
      <ButtonLink look="main" to={`/lists/${listId}/send`}>
        Next: send
      </ButtonLink>
    </div>
  )
}
