import type { SampledOrder } from '@upper-field/contract'
import { useState } from 'react'
import { useReadFillSampleQuery } from '../api'
import { NotConnected } from '../connections/NotConnected'
import { useProviders } from '../connections/useConnected'
import { Tabs } from '../kit/Tabs'
import { Bench, BenchTitle, StoryOr } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, EMAIL, NAME, NUMBER } from '../shell/columns'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { budgetOf, DEFAULT_BUDGET } from './budget'
import { FillPlanPanel } from './FillPlanPanel'
import { LeftOut } from './LeftOut'
import { SampleBench } from './SampleBench'
import { SamplePanel } from './SamplePanel'
import { StartSample } from './StartSample'
import { FILL_TABS, useFillTab } from './useFillTab'
import { Waterfall } from './Waterfall'

const COLUMNS = [NAME, COMPANY, NUMBER, EMAIL]

/** Fill: who is asked for missing mobiles, in which order, and what each gave; and what a sample teaches of orders. */
export function FillView() {
  const [chosen, setOrder] = useState<readonly string[] | null>(null)
  const { listId } = useListView()
  const providers = useProviders()
  const tab = useFillTab()
  useKeys({ v: () => tab.show(FILL_TABS[(FILL_TABS.indexOf(tab.shown) + 1) % FILL_TABS.length] ?? 'waterfall') })
  const everybody = providers?.map(({ provider }) => provider) ?? []
  const order = chosen ?? everybody
  if (providers?.length === 0)
    return (
      <Bench
        piles={['sure', 'line', 'country', 'batch']}
        advice={
          <NotConnected
            title="No provider is connected"
            next={`/lists/${listId}/split`}
            nextText="Next: split by channel"
          >
            Missing numbers are asked for at providers, in turn, until one gives a usable one.
          </NotConnected>
        }
      >
        <WithoutMobile />
      </Bench>
    )
  const tabs = (
    <Tabs
      label="Parts of Fill"
      open={tab.shown}
      tabs={[
        ['waterfall', 'Waterfall'],
        ['sample', 'Sample'],
      ]}
      onOpen={tab.show}
    />
  )
  if (tab.shown === 'sample')
    return (
      <Sample
        order={order}
        everybody={everybody}
        tabs={tabs}
        onTake={(taken) => {
          setOrder(taken)
          tab.show('waterfall')
        }}
      />
    )
  return <Filling order={order} everybody={everybody} setOrder={setOrder} tabs={tabs} />
}

const WithoutMobile = () => (
  <>
    <h2 className="pt-4 pb-2 text-[15px]">Contacts without a mobile</h2>
    <ContactGrid columns={COLUMNS} extraFilter="is:no-mobile" emptyText="Everybody has a mobile." />
  </>
)

interface PartProps {
  readonly order: readonly string[]
  readonly everybody: readonly string[]
  readonly tabs: React.ReactNode
}

function Filling({ order, everybody, setOrder, tabs }: PartProps & { setOrder: (order: readonly string[]) => void }) {
  const [checksLines, setChecksLines] = useState(true)
  return (
    <Bench
      piles={['sure', 'line', 'country', 'batch']}
      advice={<FillPlanPanel order={order} checksLines={checksLines} setChecksLines={setChecksLines} />}
    >
      <div className="-mx-5">{tabs}</div>
      <BenchTitle title="Who is asked, in which order">
        the first usable mobile ends the search for a contact
      </BenchTitle>
      <Waterfall order={order} setOrder={setOrder} checksLines={checksLines} />
      <LeftOut order={order} everybody={everybody} setOrder={setOrder} />
      <WithoutMobile />
    </Bench>
  )
}

function Sample({ order, everybody, tabs, onTake }: PartProps & { onTake: (order: readonly string[]) => void }) {
  const { listId } = useListView()
  const [budgetText, setBudgetText] = useState(DEFAULT_BUDGET)
  const budget = budgetOf(budgetText) ?? undefined
  const { data: sample } = useReadFillSampleQuery({ params: { listId }, query: { order: order.join(','), budget } })
  const [plan, setPlan] = useState<SampledOrder | null>(null)
  const chosen = plan ?? sample?.cheapest
  return (
    <div className="flex h-full min-h-0">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col pt-3">
        {tabs}
        <div className="flex min-h-0 flex-1 flex-col px-5">
          {sample && chosen ? (
            <SampleBench sample={sample} chosen={chosen} onChoose={setPlan} />
          ) : (
            <>
              <BenchTitle title="What money finds">nobody was asked of everyone yet</BenchTitle>
              <WithoutMobile />
            </>
          )}
        </div>
      </main>
      <StoryOr>
        {sample && chosen ? (
          <SamplePanel
            sample={sample}
            chosen={chosen}
            onChoose={setPlan}
            onTake={onTake}
            budgetText={budgetText}
            setBudgetText={setBudgetText}
          />
        ) : (
          <StartSample everybody={everybody} />
        )}
      </StoryOr>
    </div>
  )
}
