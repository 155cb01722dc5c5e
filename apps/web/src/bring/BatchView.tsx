import type { Batch } from '@upper-field/contract'
import { delimiterName, ENCODING_NAMES } from '@upper-field/core/table'
import { isContainer } from '@upper-field/files'
import type { ReactNode } from 'react'
import { useBringBatchBackMutation, useTakeBatchBackMutation, useThrowAwayMutation } from '../api'
import { Button } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { JobUnderWay, useJobUnderWay } from '../shell/JobUnderWay'
import { bytes, count, date, money, plural } from '../words/format'
import { BASIS, BATCH_PROBLEM, FIELD, FORMAT, SOURCE } from '../words/sentences'
import { HeldRows } from './HeldRows'
import { ReadAnew } from './ReadAnew'

/** One batch: what it was, how it was understood, and the rows that could not be read. */
export function BatchView({ batch, mayChange, job }: { batch: Batch; mayChange: boolean; job: ReactNode }) {
  return (
    <>
      <div className="flex items-start justify-between gap-3">
        <h1>{batch.name}</h1>
        {mayChange ? <Acts batch={batch} /> : null}
      </div>
      <p className="pb-3 text-soft">{howItWasRead(batch)}</p>
      {job && !['ready', 'taken-back'].includes(batch.state) ? <div className="max-w-md pb-4">{job}</div> : null}
      <div className="max-w-md pb-3 empty:hidden">
        <JobUnderWay of={['take-back', 'bring-back']} />
      </div>
      {batch.problem ? (
        <Notice tone="bad">
          {BATCH_PROBLEM[batch.problem] ?? 'This batch could not be brought in. Nothing of it is shown.'}
        </Notice>
      ) : null}
      {batch.state === 'taken-back' ? (
        <div className="pb-3">
          <Notice tone="look">
            Taken back: its contacts, joins and fills are in no count and in no file. Bring it back, and they all
            return.
          </Notice>
        </div>
      ) : null}
      {batch.sameFile.length > 0 ? (
        <div className="pb-3">
          <Notice tone="look">
            The very same file is also “{batch.sameFile.map(({ name }) => name).join('”, “')}” in{' '}
            {batch.sameFile.map(({ listName }) => listName).join(', ')}.
          </Notice>
        </div>
      ) : null}
      <dl className="grid max-w-3xl grid-cols-5 gap-4 border-y border-line py-3">
        <Fact name="Rows" value={count(batch.rows)} />
        <Fact name="Held" value={count(batch.held)} />
        <Fact name="With a mobile" value={count(batch.withMobile)} />
        <Fact
          name="Source"
          value={SOURCE[batch.sourceKind]}
          more={batch.price === null ? BASIS[batch.lawfulBasis] : `${money(batch.price)} paid`}
        />
        <Fact
          name="Gathered on"
          value={batch.gatheredOn ? date(batch.gatheredOn) : 'not stated'}
          more={batch.price === null ? batch.note : BASIS[batch.lawfulBasis]}
        />
      </dl>
      {batch.held > 0 && mayChange ? <HeldRows batch={batch} /> : null}
      <h2 className="pt-5 pb-2 text-[15px]">How it was understood</h2>
      <ul className="flex flex-wrap gap-x-5 gap-y-1">
        {batch.headings.map((heading, i) =>
          heading === '' ? null : (
            // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
            <li key={i}>
              {heading}{' '}
              <span className="text-soft">→ {batch.mapping[i] ? FIELD[batch.mapping[i]] : 'kept as extra'}</span>
            </li>
          ),
        )}
      </ul>
      {mayChange && batch.state === 'ready' ? <ReadAnew batch={batch} /> : null}
      <ul className="pt-2 text-[13px] text-soft">
        {batch.notes.map(({ code, text }) => (
          <li key={code + text}>· {text}</li>
        ))}
      </ul>
    </>
  )
}

function howItWasRead(batch: Batch): string {
  const read = isContainer(batch.format)
    ? [FORMAT[batch.format], ...(batch.sheet ? [`sheet “${batch.sheet}”`] : [])]
    : [delimiterName(batch.delimiter).toLowerCase(), ENCODING_NAMES[batch.encoding]]
  const country = batch.defaultCountry ? [`default country ${batch.defaultCountry}`] : []
  return [batch.fileName, bytes(batch.bytes), ...read, ...country].join(' · ')
}

/** Taking a batch back, bringing it back, throwing away one that was never shown. */
function Acts({ batch }: { batch: Batch }) {
  const [takeBack, taking] = useTakeBatchBackMutation()
  const [bringBack, bringing] = useBringBatchBackMutation()
  const [throwAway, throwing] = useThrowAwayMutation()
  const isTurning = useJobUnderWay('take-back', 'bring-back') !== undefined
  const params = { params: { batchId: batch.id } }
  return (
    <div className="flex flex-col items-end gap-1">
      {batch.state === 'ready' ? (
        <Button disabled={isTurning} onClick={() => void takeBack(params)}>
          Take back {plural(batch.rows, 'row')}
        </Button>
      ) : null}
      {batch.state === 'taken-back' ? (
        <Button look="main" disabled={isTurning} onClick={() => void bringBack(params)}>
          Bring back {plural(batch.rows, 'row')}
        </Button>
      ) : null}
      {['uploading', 'stopped', 'failed'].includes(batch.state) ? (
        <Button look="danger" onClick={() => void throwAway(params)}>
          Throw away
        </Button>
      ) : null}
      <Refused by={[taking, bringing, throwing]} />
    </div>
  )
}

const Fact = ({ name, value, more }: { name: string; value: string; more?: string }) => (
  <div>
    <dt className="text-[13px] text-soft">{name}</dt>
    <dd className="font-semibold">{value}</dd>
    {more ? <dd className="text-[13px] text-soft">{more}</dd> : null}
  </div>
)
