import type { PairState } from '@upper-field/contract'
import { useState } from 'react'
import { useRunPairingMutation } from '../api'
import { Button } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { JobUnderWay, useJobUnderWay } from '../shell/JobUnderWay'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'
import { bitsText } from '../words/pairing'
import { AtTheLines } from './AtTheLines'
import { Decisions } from './Decisions'
import { Histogram, TONES } from './Histogram'

/** Where pairs join by themselves and where a person decides, on the histogram of scores; and what was decided last. */
export function PairLines({ state }: { state: PairState }) {
  const { listId } = useListView()
  const mayChange = useMayChange()
  const [lines, setLines] = useState(state.thresholds)
  const [run, running] = useRunPairingMutation()
  const isLooking = useJobUnderWay('pair') !== undefined
  const between = (from: number, to: number) =>
    state.bins.filter((bin) => bin.from >= from && bin.from < to).reduce((sum, bin) => sum + bin.pairs, 0)
  const groups = state.groups.find(({ from }) => from === lines.join)
  const isMoved = lines.join !== state.thresholds.join || lines.decide !== state.thresholds.decide
  return (
    <>
      <h2>Where to draw the lines</h2>
      {state.ranAt === null ? (
        <p className="pt-1 text-soft">
          What agreement is worth is learnt from the list itself. Pairs above the upper line are joined, those between
          the lines wait for you.
        </p>
      ) : (
        <p className="pt-1 text-soft">
          Scores of {plural(between(-100, 100), 'pair')} among {plural(state.contacts, 'contact')}. Above 0 it is
          likelier that they are one person.
        </p>
      )}
      {state.ranAt === null ? null : <Histogram bins={state.bins} lines={lines} />}
      <Line
        title="Joined by themselves from"
        value={lines.join}
        least={lines.decide}
        most={40}
        onChange={(join) => setLines({ ...lines, join })}
      />
      <Line
        title="Left to a person from"
        value={lines.decide}
        least={-20}
        most={lines.join}
        onChange={(decide) => setLines({ ...lines, decide })}
      />
      {state.ranAt === null ? null : (
        <dl className="pt-1">
          {groups ? <Figure name="Contacts made of several, joined by themselves" n={groups.groups} /> : null}
          <Figure tone={TONES.joined} name="Pairs above the upper line" n={between(lines.join, 100)} />
          <Figure tone={TONES.asked} name="Between the lines" n={between(lines.decide, lines.join)} />
          <Figure tone={TONES.apart} name="Left apart" n={between(-100, lines.decide)} />
          <Figure name="Contacts joined by likeness or a person" n={state.joined} />
          <Figure name="Pairs kept apart by a person" n={state.keptApart} />
        </dl>
      )}
      {state.ranAt === null ? null : <AtTheLines bins={state.bins} lines={lines} />}
      <p className="py-2 text-[13px] text-soft">
        A pair above the upper line still waits for you where its names differ, or where it could be another’s as well.
      </p>
      <Refused by={[running]} />
      {isLooking ? (
        <JobUnderWay of={['pair']} />
      ) : (
        <Button
          look="main"
          className="w-full"
          disabled={running.isLoading || !mayChange}
          onClick={() => void run({ params: { listId }, body: { thresholds: lines } })}
        >
          {state.ranAt === null
            ? 'Look for one person in several contacts'
            : isMoved
              ? 'Draw these lines'
              : 'Look again'}
        </Button>
      )}
      <Decisions listId={listId} />
    </>
  )
}

const Figure = ({ name, n, tone }: { name: string; n: number; tone?: string }) => (
  <div className="flex items-baseline justify-between gap-3 border-t border-line py-1">
    <dt>
      {tone ? <span aria-hidden="true" className={`mr-2 inline-block size-2.5 ${tone}`} /> : null}
      {name}
    </dt>
    <dd className="num">{count(n)}</dd>
  </div>
)

function Line(props: { title: string; value: number; least: number; most: number; onChange: (value: number) => void }) {
  const { title, value, least, most, onChange } = props
  return (
    <label className="flex items-center gap-2 py-1">
      <span className="w-[46%] shrink-0">{title}</span>
      <input
        type="range"
        min={-20}
        max={40}
        step={1}
        value={value}
        onChange={(event) => onChange(Math.min(most, Math.max(least, Number(event.target.value))))}
        className="min-w-0 flex-1 accent-moss"
      />
      <span className="num w-10 shrink-0 text-right">{bitsText(value)}</span>
    </label>
  )
}
