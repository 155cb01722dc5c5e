import type { PairState } from '@upper-field/contract'
import { useState } from 'react'
import {
  problemText,
  useReadDecidedQuery,
  useReadMeQuery,
  useRunPairingMutation,
  useTakeDecisionBackMutation,
} from '../api'
import { Button, TextButton } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { count, plural, time } from '../words/format'
import { bitsText } from '../words/pairing'

/** Where pairs join by themselves and where a person decides, on the histogram of scores; and what was decided last. */
export function PairLines({ state }: { state: PairState }) {
  const { listId } = useListView()
  const { data: me } = useReadMeQuery({})
  const [lines, setLines] = useState(state.thresholds)
  const [run, running] = useRunPairingMutation()
  const between = (from: number, to: number) =>
    state.bins.filter((bin) => bin.from >= from && bin.from < to).reduce((sum, bin) => sum + bin.pairs, 0)
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
          <Figure tone={TONES.joined} name="Pairs above the upper line" n={between(lines.join, 100)} />
          <Figure tone={TONES.asked} name="Between the lines" n={between(lines.decide, lines.join)} />
          <Figure tone={TONES.apart} name="Left apart" n={between(-100, lines.decide)} />
          <Figure name="Contacts joined by likeness or a person" n={state.joined} />
          <Figure name="Pairs kept apart by a person" n={state.keptApart} />
        </dl>
      )}
      <p className="py-2 text-[13px] text-soft">
        A pair above the upper line still waits for you where its names differ, or where it could be another’s as well.
      </p>
      {running.error ? <Notice tone="bad">{problemText(running.error)}</Notice> : null}
      <Button
        look="main"
        className="w-full"
        disabled={running.isLoading || me?.role === 'viewer'}
        onClick={() => void run({ params: { listId }, body: { thresholds: lines } })}
      >
        {state.ranAt === null ? 'Look for one person in several contacts' : isMoved ? 'Draw these lines' : 'Look again'}
      </Button>
      <Decisions listId={listId} />
    </>
  )
}

function Decisions({ listId }: { listId: string }) {
  const { data: decided = [] } = useReadDecidedQuery({ params: { listId } })
  const { data: me } = useReadMeQuery({})
  const view = useListView()
  const [takeBack, takingBack] = useTakeDecisionBackMutation()
  const [last] = decided
  const mayChange = me?.role !== 'viewer' && !takingBack.isLoading
  useKeys({
    z: () => {
      if (last && mayChange && view.contactId === null) void takeBack({ params: { decisionId: last.id } })
    },
  })
  if (decided.length === 0) return null
  return (
    <section aria-label="Decided last" className="pt-4">
      <h3>Decided last</h3>
      <ul>
        {decided.map(({ id, decision, pairs, who, at }) => (
          <li key={id} className="flex items-baseline justify-between gap-2 border-t border-line py-1.5">
            <span>
              {plural(pairs, 'pair')} {decision === 'join' ? 'joined' : 'kept apart'}
              <span className="block text-[12.5px] text-soft">
                {who}, {time(at)}
              </span>
            </span>
            <TextButton disabled={!mayChange} onClick={() => void takeBack({ params: { decisionId: id } })}>
              Take back
            </TextButton>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** The same in the histogram and in the figures under it. */
const TONES = { joined: 'bg-moss', asked: 'bg-straw', apart: 'bg-slate opacity-45' }

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

const HEIGHT = 96

/** Pairs by score; the height is by the root, so that few are seen beside many. */
function Histogram({ bins, lines }: { bins: PairState['bins']; lines: PairState['thresholds'] }) {
  const most = Math.sqrt(Math.max(1, ...bins.map(({ pairs }) => pairs)))
  const toneOf = (from: number) =>
    from >= lines.join ? TONES.joined : from >= lines.decide ? TONES.asked : TONES.apart
  return (
    <figure className="py-2">
      <div
        role="img"
        aria-label={bins
          .filter(({ pairs }) => pairs > 0)
          .map(({ from, pairs }) => `${count(pairs)} from ${bitsText(from)}`)
          .join(', ')}
        className="flex items-end gap-px border-b border-edge"
        style={{ height: HEIGHT }}
      >
        {bins.map(({ from, pairs }) => (
          <span
            key={from}
            title={`${plural(pairs, 'pair')} from ${bitsText(from)} to ${bitsText(from + 1)}`}
            className={`flex-1 ${toneOf(from)}`}
            style={{ height: pairs === 0 ? 0 : Math.max(2, (Math.sqrt(pairs) / most) * HEIGHT) }}
          />
        ))}
      </div>
      <figcaption className="flex justify-between pt-1 text-[12.5px] text-soft">
        <span className="num">−20</span>
        <span>score in bits; heights by the root</span>
        <span className="num">+40</span>
      </figcaption>
    </figure>
  )
}
