import { useState } from 'react'
import { useReadLaneRulesQuery, useReadPilesQuery } from '../api'
import { ButtonLink, TextButton } from '../kit/Button'
import { Tabs } from '../kit/Tabs'
import { useMayChange } from '../people/useRole'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { BECAUSE, COMPANY, LANE_WORD, NAME, NUMBER } from '../shell/columns'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'
import { CallAdvice } from './CallAdvice'
import { CallSheet } from './CallSheet'
import { LaneRulesDialog } from './LaneRulesDialog'
import { Lanes } from './Lanes'
import { shownLanes } from './laneList'
import { Segments } from './Segments'
import { SPLIT_TABS, useSplitTab } from './useSplitTab'

const COLUMNS = [NAME, COMPANY, NUMBER, LANE_WORD, BECAUSE]

/** Split: each contact in the one channel it suits; the sum is always in sight. */
export function SplitView() {
  const tab = useSplitTab()
  useKeys({ v: () => tab.show(SPLIT_TABS[(SPLIT_TABS.indexOf(tab.shown) + 1) % SPLIT_TABS.length] ?? 'lanes') })
  return (
    <Bench
      piles={
        tab.shown === 'lanes' ? ['lane', 'reason', 'call', 'line', 'country'] : ['call', 'sure', 'status', 'country']
      }
      advice={tab.shown === 'lanes' ? <SumAdvice /> : <CallAdvice />}
    >
      <div className="-mx-5">
        <Tabs
          label="Parts of Split"
          open={tab.shown}
          tabs={[
            ['lanes', 'Lanes'],
            ['calls', 'Call sheet'],
          ]}
          onOpen={tab.show}
        />
      </div>
      {tab.shown === 'lanes' ? (
        <>
          <BenchTitle title="One lane for everyone">the first lane that takes a contact keeps it</BenchTitle>
          <Lanes />
          <ContactGrid columns={COLUMNS} />
        </>
      ) : (
        <>
          <BenchTitle title="Who is called">one after the other, each with an outcome</BenchTitle>
          <CallSheet />
        </>
      )}
    </Bench>
  )
}

function SumAdvice() {
  const { listId } = useListView()
  const { data } = useReadPilesQuery({ params: { listId }, query: { filter: '' } })
  const { data: rules } = useReadLaneRulesQuery({ params: { listId } })
  const mayChange = useMayChange()
  const [isChanging, setIsChanging] = useState(false)
  const lanes = shownLanes(rules)
  const counts = lanes.map(({ lane }) => data?.lane[lane] ?? 0)
  const sum = counts.reduce((all, n) => all + n, 0)
  return (
    <div className="flex flex-col gap-3">
      <h2>The sum</h2>
      <dl>
        {lanes.map(({ lane, name }, i) => (
          <div key={lane} className="flex justify-between border-t border-line py-1.5">
            <dt>{name}</dt>
            <dd className="num">{count(counts[i] ?? 0)}</dd>
          </div>
        ))}
        <div className="flex justify-between border-t border-edge py-1.5 font-semibold">
          <dt>Everybody</dt>
          <dd className="num">{count(sum)}</dd>
        </div>
      </dl>
      <p className="text-soft">
        Nobody is deleted: {plural(counts.at(-1) ?? 0, 'contact')} {counts.at(-1) === 1 ? 'waits' : 'wait'} in Parked
        until something about them changes.
      </p>
      {mayChange && rules ? (
        <p>
          <TextButton onClick={() => setIsChanging(true)}>
            {rules.isOwn ? 'Change the rules of the lanes' : 'Decide the lanes by own rules'}
          </TextButton>
        </p>
      ) : null}
      {isChanging && rules ? <LaneRulesDialog kept={rules} onClose={() => setIsChanging(false)} /> : null}
      <Segments />
      <ButtonLink look="main" to={`/lists/${listId}/send`}>
        Next: send
      </ButtonLink>
    </div>
  )
}
