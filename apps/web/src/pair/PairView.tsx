import type { List, PairState } from '@upper-field/contract'
import { useOutletContext } from 'react-router'
import { useReadPairingQuery, useReadPilesQuery } from '../api'
import { ButtonLink, TextButton } from '../kit/Button'
import { Tabs } from '../kit/Tabs'
import { lastRead, Unanswered } from '../shell/Answer'
import { BenchTitle, StoryOr } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, EMAIL, JOINED, NAME, NUMBER, SHARED } from '../shell/columns'
import { Sieve } from '../shell/Sieve'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'
import { AlsoInPile } from './AlsoInPile'
import { OtherLists } from './OtherLists'
import { PairBench } from './PairBench'
import { PairLines } from './PairLines'
import { SharedLinesBench } from './SharedLinesBench'
import { SurvivorshipRules } from './SurvivorshipRules'
import { PAIR_TABS, usePairTab } from './usePairTab'

const COLUMNS = [NAME, COMPANY, NUMBER, EMAIL, JOINED, SHARED]

/** Pair: one contact per person. What is sure is joined, what is not is decided side by side. */
export function PairView() {
  const view = useListView()
  const tab = usePairTab()
  const asked = useReadPairingQuery({ params: { listId: view.listId } })
  const state = lastRead(asked)
  useKeys({ v: () => tab.show(PAIR_TABS[(PAIR_TABS.indexOf(tab.shown) + 1) % PAIR_TABS.length] ?? 'pairs') })
  if (!state) return <Unanswered of={[asked]} what="how the list is paired" />
  return (
    <div className="flex h-full min-h-0">
      {tab.shown === 'contacts' ? (
        <Sieve piles={['is', 'batch', 'country']}>
          <AlsoInPile />
        </Sieve>
      ) : null}
      <main className="flex min-h-0 min-w-0 flex-1 flex-col pt-3">
        <Tabs
          label="Parts of Pair"
          open={tab.shown}
          tabs={[
            ['pairs', 'To decide'],
            ['contacts', 'Contacts'],
            ['lines', 'Shared lines'],
            ['lists', 'Other lists'],
          ]}
          onOpen={tab.show}
        />
        {tab.shown === 'contacts' ? <Joined /> : null}
        {tab.shown === 'pairs' ? <PairBench state={state} /> : null}
        {tab.shown === 'lines' ? <SharedLinesBench /> : null}
        {tab.shown === 'lists' ? <OtherLists /> : null}
      </main>
      <StoryOr>
        {tab.shown === 'pairs' ? <PairLines key={state.ranAt} state={state} /> : <PairAdvice state={state} />}
      </StoryOr>
    </div>
  )
}

function Joined() {
  const view = useListView()
  const isPlain = view.text === ''
  return (
    <div className="flex min-h-0 flex-1 flex-col px-5 pb-3">
      <BenchTitle title={isPlain ? 'Joined from several rows' : 'Who is one person'}>
        by a key they share, by likeness, or by a person’s word
      </BenchTitle>
      <ContactGrid
        columns={COLUMNS}
        extraFilter={isPlain ? 'is:joined' : ''}
        emptyText="No two rows share a number or an e-mail."
      />
    </div>
  )
}

function PairAdvice({ state }: { state: PairState }) {
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
        The same number under different names is a shared line: a switchboard or a household, never joined by itself.
        Choose a contact to see which rows it was made from. Any join can be taken apart.
      </p>
      <SurvivorshipRules key={JSON.stringify(state.survivorship)} state={state} />
      <ButtonLink look="main" className="mt-4 w-full" to={`/lists/${view.listId}/check`}>
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
