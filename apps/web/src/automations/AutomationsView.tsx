import type { Automation, AutomationRun, List } from '@upper-field/contract'
import { useState } from 'react'
import { useOutletContext } from 'react-router'
import { useReadBatchesQuery } from '../api'
import { BringTabs } from '../bring/BringTabs'
import { AskFirst } from '../kit/AskFirst'
import { Button, TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { useReadAudiencesQuery } from '../send/audienceApi'
import { Answer, Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { time } from '../words/format'
import {
  useReadAutomationRunsQuery,
  useReadAutomationsQuery,
  useRemoveAutomationMutation,
  useSwitchAutomationMutation,
} from './automationApi'
import { outcomeText, START_TEXT, startText, stepText, WORK_TEXT } from './automationText'
import { NewAutomationDialog } from './NewAutomationDialog'

/** How often runs that are under way are looked at, in milliseconds. */
const LOOK = 3000

/** What is done by itself in a list, and what became of it each time. */
export function AutomationsView() {
  const list = useOutletContext<List>()
  const { listId } = useListView()
  const automations = useReadAutomationsQuery({ params: { listId } })
  const runs = useReadAutomationRunsQuery({ params: { listId } }, { pollingInterval: LOOK })
  const { data: audiences = [] } = useReadAudiencesQuery({ params: { listId } })
  const { data: batches = [] } = useReadBatchesQuery({ params: { listId } })
  const [isMaking, setIsMaking] = useState(false)
  const mayChange = useMayChange() && !list.archivedAt
  const names = new Map(audiences.map(({ id, name }) => [id, name]))
  const batchNames = new Map(batches.map(({ id, name }) => [id, name]))
  return (
    <main className="h-full overflow-y-auto pt-3">
      <BringTabs />
      <div className="max-w-4xl px-5 pb-6">
        <div className="flex items-baseline justify-between pb-1">
          <h1>Automations</h1>
          {mayChange ? (
            <Button look="main" onClick={() => setIsMaking(true)}>
              Add an automation
            </Button>
          ) : null}
        </div>
        <p className="pb-3 text-soft">
          Work that begins without anybody asking, in the order that is set, each part within its amount.
        </p>
        <Answer
          of={automations}
          what="the automations"
          none={<p className="border-y border-line py-3 text-soft">No automations yet.</p>}
        >
          {(all) => (
            <ul>
              {all.map((one) => (
                <li key={one.id} className="border-b border-line py-2">
                  <Line automation={one} audiences={names} mayChange={mayChange} />
                </li>
              ))}
            </ul>
          )}
        </Answer>
        <h2 className="pb-1 pt-6 text-[15px]">What was done</h2>
        <Answer of={runs} what="what was done" none={<p className="text-soft">Nothing yet.</p>}>
          {(all) => (
            <ul>
              {all.map((run) => (
                <li key={run.id} className="border-b border-line py-2">
                  <Run run={run} batch={run.batchId === null ? null : (batchNames.get(run.batchId) ?? 'a batch')} />
                </li>
              ))}
            </ul>
          )}
        </Answer>
      </div>
      {isMaking ? (
        <NewAutomationDialog listId={listId} audiences={audiences} onClose={() => setIsMaking(false)} />
      ) : null}
    </main>
  )
}

function Line(props: { automation: Automation; audiences: ReadonlyMap<string, string>; mayChange: boolean }) {
  const { automation, audiences, mayChange } = props
  const [change, changing] = useSwitchAutomationMutation()
  const [remove, removing] = useRemoveAutomationMutation()
  const params = { automationId: automation.id }
  const name = startText(automation)
  return (
    <>
      <p className="flex items-baseline gap-4">
        <span className={`flex-1 font-semibold ${automation.isOn ? '' : 'text-soft line-through'}`}>{name}</span>
        {mayChange ? (
          <>
            <Button
              aria-pressed={automation.isOn}
              aria-label={`${automation.isOn ? 'Switch off' : 'Switch on'}: ${name}`}
              onClick={() => void change({ params, body: { isOn: !automation.isOn } })}
            >
              {automation.isOn ? 'Switch off' : 'Switch on'}
            </Button>
            <AskFirst
              title="Remove this automation?"
              says="What it has under way is stopped, and what it did stays in the list. To stop it for a while, switch it off."
              does="Remove it"
              onDo={() => void remove({ params })}
            >
              {(ask) => (
                <TextButton aria-label={`Remove: ${name}`} onClick={ask}>
                  remove
                </TextButton>
              )}
            </AskFirst>
          </>
        ) : null}
      </p>
      <ol className="flex flex-wrap gap-x-2">
        {automation.steps.map((step, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places, and the same may stand there twice
          <li key={at}>
            {at > 0 ? <span className="text-soft">then </span> : null}
            {stepText(step, audiences)}
          </li>
        ))}
      </ol>
      <p className="text-[13px] text-soft">set by {automation.madeBy}</p>
      <Refused by={[changing, removing]} />
    </>
  )
}

function Run({ run, batch }: { run: AutomationRun; batch: string | null }) {
  return (
    <>
      <p className="flex items-baseline gap-4">
        <span className="flex-1">
          {START_TEXT[run.start]}
          {batch ? <span className="text-soft"> · {batch}</span> : null}
        </span>
        <span className="text-[13px] text-soft">{time(run.startedAt)}</span>
      </p>
      <ul className="text-[13px]">
        {run.done.map((one, at) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places
            key={at}
            className={one.outcome === 'failed' || one.outcome === 'refused' ? 'text-beet' : 'text-soft'}
          >
            {WORK_TEXT[one.work]}: {outcomeText(one)}
          </li>
        ))}
        {run.state === 'running' && run.working ? <li>{WORK_TEXT[run.working]} …</li> : null}
        {run.state === 'stopped' ? <li className="text-straw-ink">switched off before it was through</li> : null}
      </ul>
    </>
  )
}
