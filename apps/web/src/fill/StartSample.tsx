import { isUnderWay, type List } from '@upper-field/contract'
import { useState } from 'react'
import { useOutletContext } from 'react-router'
import { problemText, useEstimateFillQuery, useReadJobsQuery, useReadMeQuery, useStartFillMutation } from '../api'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { JobLine } from '../shell/JobStrip'
import { useListView } from '../shell/useListView'
import { money, plural } from '../words/format'

const USUAL = 150
const LARGEST = 2000

/** Asks every service about the same contacts, taken at random: for its price said first. */
export function StartSample({ everybody }: { everybody: readonly string[] }) {
  const { listId, text: filter } = useListView()
  const list = useOutletContext<List>()
  const { data: me } = useReadMeQuery({})
  const [text, setText] = useState(String(USUAL))
  const [start, starting] = useStartFillMutation()
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const { data: estimate } = useEstimateFillQuery({
    params: { listId },
    query: { filter, order: everybody.join(','), checksLines: 'yes' },
  })
  const job = jobs.find(({ kind }) => kind === 'fill')
  const isBusy = job !== undefined && isUnderWay(job)
  const wanting = estimate?.wanting ?? 0
  const size = Number(text)
  const isSize = Number.isInteger(size) && size > 0 && size <= LARGEST
  const sample = Math.min(size, wanting)
  const most = estimate && wanting > 0 ? Math.ceil((estimate.most * sample) / wanting) : 0
  return (
    <div className="flex flex-col gap-3">
      <h2>Ask everybody about some</h2>
      <p>
        Every service is asked about the same contacts, taken at random. From their answers each order is replayed: what
        it would have found, and what it would have cost.
      </p>
      <TextField
        label="How many contacts"
        inputMode="numeric"
        value={text}
        onChange={(event) => setText(event.target.value)}
        error={isSize ? undefined : 'A whole number from 1 to 2,000.'}
        hint="150 tell a third from a half; 500 tell finer."
      />
      {starting.error ? <Notice tone="bad">{problemText(starting.error)}</Notice> : null}
      {me?.role !== 'viewer' && !list.archivedAt ? (
        <Button
          look="main"
          disabled={!isSize || wanting === 0 || isBusy || starting.isLoading}
          onClick={() =>
            void start({
              params: { listId },
              body: { order: [...everybody], checksLines: true, budget: most, asking: 'everybody', sample, filter },
            })
          }
        >
          Ask about {plural(isSize ? sample : 0, 'contact')} · at most {money(isSize ? most : 0)}
        </Button>
      ) : null}
      {job ? (
        <section aria-label="Latest fill" className="border-t border-line pt-3">
          <JobLine job={job} />
        </section>
      ) : null}
    </div>
  )
}
