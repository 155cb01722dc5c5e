import type { List } from '@upper-field/contract'
import { useOutletContext } from 'react-router'
import { useReadPilesQuery } from '../api'
import { ButtonLink, TextButton } from '../kit/Button'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, EMAIL, JOINED, NAME, NUMBER, SHARED } from '../shell/columns'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'

const COLUMNS = [NAME, COMPANY, NUMBER, EMAIL, JOINED, SHARED]

/** Pair: one contact per person. Exact duplicates are joined; shared lines are not. */
export function PairView() {
  const view = useListView()
  const isPlain = view.text === ''
  return (
    <Bench piles={['is', 'batch', 'country']} advice={<PairAdvice />}>
      <BenchTitle title={isPlain ? 'Joined from several rows' : 'Who is one person'}>
        same number or e-mail, and a compatible name
      </BenchTitle>
      <ContactGrid
        columns={COLUMNS}
        extraFilter={isPlain ? 'is:joined' : ''}
        emptyText="No two rows share a number or an e-mail."
      />
    </Bench>
  )
}

function PairAdvice() {
  const view = useListView()
  const list = useOutletContext<List>()
  const { data } = useReadPilesQuery({ params: { listId: view.listId }, query: { filter: '' } })
  const joined = -(list.terrace.find(({ stage }) => stage === 'pair')?.changes[0]?.by ?? 0)
  return (
    <>
      <h2>Rows that were one person</h2>
      <dl className="pt-1">
        <Line name="Rows joined into another" n={joined} onClick={() => view.setText('fell:joined')} />
        <Line name="Contacts that gained by it" n={data?.is.joined ?? 0} onClick={() => view.setText('is:joined')} />
        <Line name="Contacts on a shared line" n={data?.is.shared ?? 0} onClick={() => view.setText('is:shared')} />
      </dl>
      <p className="py-3 text-soft">
        The first row survives; the others fill its gaps, and their numbers are kept as second and third. The same
        number under different names is a shared line: a switchboard or a household, never joined by itself.
      </p>
      <p className="pb-4 text-soft">
        Choose a contact to see which rows it was made from. Any join can be taken apart.
      </p>
      <ButtonLink look="main" className="w-full" to={`/lists/${view.listId}/check`}>
        Next: check the lines
      </ButtonLink>
    </>
  )
}

const Line = ({ name, n, onClick }: { name: string; n: number; onClick: () => void }) => (
  <div className="flex items-baseline justify-between gap-3 border-t border-line py-1.5">
    <dt>
      <TextButton onClick={onClick}>{name}</TextButton>
    </dt>
    <dd className="num">{count(n)}</dd>
  </div>
)
