import { useState } from 'react'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { JobLine } from '../shell/JobStrip'
import { money, plural } from '../words/format'
import type { PlanDraft } from './plan'
import { useFilling } from './useFilling'

const USUAL = 150
const LARGEST = 2000

/** Asks every service about the same contacts, taken at random: for its price said first. */
export function StartSample({ plan, onStarted }: { plan: PlanDraft; onStarted: () => void }) {
  const [text, setText] = useState(String(USUAL))
  const { estimate, isCounting, asked, job, isBusy, mayStart, startError, isStarting, start } = useFilling(plan)
  const wanting = estimate?.wanting ?? 0
  const size = Number(text)
  const isSize = Number.isInteger(size) && size > 0 && size <= LARGEST
  const sample = Math.min(size, wanting)
  const most = estimate && wanting > 0 ? Math.ceil((estimate.most * sample) / wanting) : 0
  const ask = async () => {
    if (await start({ budget: most, asking: 'everybody', sample })) onStarted()
  }
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
      <Refused by={[asked, { error: startError }]} />
      {mayStart ? (
        <Button
          look="main"
          disabled={!isSize || wanting === 0 || isCounting || isBusy || isStarting}
          onClick={() => void ask()}
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
