import { isUnderWay, type SampledOrder } from '@upper-field/contract'
import { useState } from 'react'
import { useReadConnectionsQuery, useReadFillSampleQuery, useReadFillsQuery, useReadJobsQuery } from '../api'
import { NotConnected } from '../connections/NotConnected'
import { inUsualOrder } from '../connections/useConnected'
import { TextButton } from '../kit/Button'
import { Loading } from '../kit/Notice'
import { Tabs } from '../kit/Tabs'
import { Unanswered } from '../shell/Answer'
import { Bench, BenchTitle, StoryOr } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, EMAIL, NAME, NUMBER } from '../shell/columns'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { budgetOf, DEFAULT_BUDGET } from '../words/budget'
import { Branches } from './Branches'
import { FillPlanPanel } from './FillPlanPanel'
import { LeftOut } from './LeftOut'
import { ProviderTable } from './ProviderTable'
import { firstPlan, newPlan, orderOf, type PlanDraft, withOrder } from './plan'
import { SampleBench } from './SampleBench'
import { SamplePanel } from './SamplePanel'
import { StartSample } from './StartSample'
import { TrailView } from './TrailView'
import { FILL_TABS, useFillTab } from './useFillTab'
import { Waterfall } from './Waterfall'

const COLUMNS = [NAME, COMPANY, NUMBER, EMAIL]

/** Fill: who is asked for what is missing, in which order, what each gave, and what a sample teaches of orders. */
export function FillView() {
  const [kept, setPlan] = useState<PlanDraft | null>(null)
  const { listId } = useListView()
  const connected = useReadConnectionsQuery({})
  const providers = connected.data ? inUsualOrder(connected.data) : null
  const tab = useFillTab()
  useKeys({ v: () => tab.show(FILL_TABS[(FILL_TABS.indexOf(tab.shown) + 1) % FILL_TABS.length] ?? 'waterfall') })
  const everybody = providers?.map(({ provider }) => provider) ?? []
  const fills = useReadFillsQuery({ params: { listId } })
  const runs = fills.data
  const plan = kept ?? firstPlan(runs ?? [], everybody)
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
        ['trail', 'Trail'],
        ['sample', 'Sample'],
      ]}
      onOpen={tab.show}
    />
  )
  // Nothing can be told of a plan before it is known whom it can ask.
  if (everybody.length === 0 || !runs) return <Unanswered of={[connected, fills]} what="the providers" />
  if (tab.shown === 'trail') return <TrailView tabs={tabs} />
  if (tab.shown === 'sample')
    return (
      <Sample
        plan={plan}
        everybody={everybody}
        tabs={tabs}
        onTake={(order) => {
          setPlan({ ...plan, order })
          tab.show('waterfall')
        }}
      />
    )
  return <Filling plan={plan} everybody={everybody} setPlan={setPlan} tabs={tabs} />
}

const WithoutMobile = () => (
  <>
    <h2 className="pt-4 pb-2 text-[15px]">Contacts without a mobile</h2>
    <ContactGrid columns={COLUMNS} extraFilter="is:no-mobile" emptyText="Everybody has a mobile." />
  </>
)

interface PartProps {
  readonly plan: PlanDraft
  readonly everybody: readonly string[]
  readonly tabs: React.ReactNode
}

function Filling({ plan, everybody, setPlan, tabs }: PartProps & { setPlan: (plan: PlanDraft) => void }) {
  const [branch, setBranch] = useState<number | null>(null)
  return (
    <Bench piles={['sure', 'line', 'country', 'batch']} advice={<FillPlanPanel plan={plan} setPlan={setPlan} />}>
      <div className="-mx-5">{tabs}</div>
      <BenchTitle title="Who is asked, in which order">what is accepted ends the search for a contact</BenchTitle>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <Branches plan={plan} setPlan={setPlan} shown={branch} show={setBranch} />
        <Waterfall plan={plan} setPlan={setPlan} branch={branch} />
        <LeftOut
          order={orderOf(plan, branch)}
          everybody={everybody}
          setOrder={(order) => setPlan(withOrder(plan, branch, order))}
        />
        <ProviderTable />
      </div>
    </Bench>
  )
}

function Sample({ plan, everybody, tabs, onTake }: PartProps & { onTake: (order: readonly string[]) => void }) {
  const { listId } = useListView()
  const [budgetText, setBudgetText] = useState(DEFAULT_BUDGET)
  const budget = budgetOf(budgetText) ?? undefined
  const { data: sample, isLoading } = useReadFillSampleQuery({
    params: { listId },
    query: { order: plan.order.join(','), budget },
  })
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const isGoingOn = jobs.some((job) => job.id === sample?.jobId && isUnderWay(job))
  const [picked, setPicked] = useState<SampledOrder | null>(null)
  const [isAskingAnew, setIsAskingAnew] = useState(false)
  const chosen = picked ?? sample?.cheapest
  // Whether there is a sample is not known before the answer.
  if (isLoading) return <Loading what="the sample" />
  return (
    <div className="flex h-full min-h-0">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col pt-3">
        {tabs}
        <div className="flex min-h-0 flex-1 flex-col px-5">
          {sample && chosen ? (
            <SampleBench sample={sample} chosen={chosen} onChoose={setPicked} isGoingOn={isGoingOn} />
          ) : (
            <>
              <BenchTitle title="What money finds">nobody was asked of everyone yet</BenchTitle>
              <WithoutMobile />
            </>
          )}
        </div>
      </main>
      <StoryOr>
        {sample && chosen && !isAskingAnew ? (
          <>
            <SamplePanel
              sample={sample}
              chosen={chosen}
              onChoose={setPicked}
              onTake={onTake}
              budgetText={budgetText}
              setBudgetText={setBudgetText}
            />
            <p className="pt-3">
              <TextButton onClick={() => setIsAskingAnew(true)}>Ask everybody about some anew</TextButton>
            </p>
          </>
        ) : (
          <StartSample plan={newPlan(everybody)} onStarted={() => setIsAskingAnew(false)} />
        )}
      </StoryOr>
    </div>
  )
}
