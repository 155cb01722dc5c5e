import { addressOf, type Batch } from '@upper-field/contract'
import type { ReactNode } from 'react'
import { problemText, useReadHeldQuery } from '../api'
import { Loading, Notice } from '../kit/Notice'
import { bytes, count, plural } from '../words/format'
import { BASIS, BATCH_PROBLEM, FIELD, HELD, SOURCE } from '../words/sentences'

const DELIMITER: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }

/** One batch: what it was, how it was understood, and the rows that could not be read. */
export function HeldRows({ batch, isViewer, job }: { batch: Batch; isViewer: boolean; job: ReactNode }) {
  return (
    <>
      <h1>{batch.name}</h1>
      <p className="pb-3 text-soft">
        {batch.fileName} · {bytes(batch.bytes)} · {DELIMITER[batch.delimiter] ?? batch.delimiter} ·{' '}
        {batch.encoding === 'utf-8' ? 'UTF-8' : 'Windows-1252'}
        {batch.defaultCountry ? ` · default country ${batch.defaultCountry}` : ''}
      </p>
      {job && batch.state !== 'ready' ? <div className="max-w-md pb-4">{job}</div> : null}
      {batch.problem ? (
        <Notice tone="bad">
          {BATCH_PROBLEM[batch.problem] ?? 'This batch could not be brought in. Nothing of it is shown.'}
        </Notice>
      ) : null}
      <dl className="grid max-w-2xl grid-cols-4 gap-4 border-y border-line py-3">
        <Fact name="Rows" value={count(batch.rows)} />
        <Fact name="Held" value={count(batch.held)} />
        <Fact name="With a mobile" value={count(batch.withMobile)} />
        <Fact name="Source" value={SOURCE[batch.sourceKind]} more={BASIS[batch.lawfulBasis]} />
      </dl>
      <h2 className="pt-5 pb-2 text-[15px]">How the columns were understood</h2>
      <ul className="flex flex-wrap gap-x-5 gap-y-1">
        {batch.headings.map((heading, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
          <li key={i}>
            {heading}{' '}
            <span className="text-soft">→ {batch.mapping[i] ? FIELD[batch.mapping[i]] : 'kept as extra'}</span>
          </li>
        ))}
      </ul>
      {batch.held > 0 && !isViewer ? <Held batch={batch} /> : null}
    </>
  )
}

const Fact = ({ name, value, more }: { name: string; value: string; more?: string }) => (
  <div>
    <dt className="text-[13px] text-soft">{name}</dt>
    <dd className="font-semibold">{value}</dd>
    {more ? <dd className="text-[13px] text-soft">{more}</dd> : null}
  </div>
)

function Held({ batch }: { batch: Batch }) {
  const { data: rows, error, isLoading } = useReadHeldQuery({ params: { batchId: batch.id } })
  return (
    <section id="held" aria-label="Held rows" className="pt-5">
      <div className="flex items-baseline justify-between pb-1">
        <h2 className="text-[15px]">{plural(batch.held, 'row')} held</h2>
        <a
          href={addressOf('downloadHeld', { params: { batchId: batch.id } })}
          className="text-slate underline"
          download
        >
          Download them as CSV
        </a>
      </div>
      <p className="pb-2 text-soft">They could not be read. Nothing of them is lost: here they are as they stood.</p>
      {error ? <Notice tone="bad">{problemText(error)}</Notice> : null}
      {isLoading ? <Loading what="the held rows" /> : null}
      <table className="w-full table-fixed">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="w-16 py-1">Row</th>
            <th className="w-[36%]">Why</th>
            <th>As it stood</th>
          </tr>
        </thead>
        <tbody>
          {rows?.map((row) => (
            <tr key={row.row} className="border-b border-line align-top">
              <td className="num py-1.5">{count(row.row)}</td>
              <td className="py-1.5 pr-3">{HELD[row.reason]}</td>
              <td className="num break-all py-1.5 text-[13px]">{row.text.slice(0, 240)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
