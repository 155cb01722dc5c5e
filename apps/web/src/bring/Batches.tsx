import type { Batch } from '@upper-field/contract'
import { TextButton } from '../kit/Button'
import { count, date, plural } from '../words/format'
import { SOURCE } from '../words/sentences'

const STATE: Record<Batch['state'], string> = {
  uploading: 'never arrived',
  queued: 'waiting',
  reading: 'being read',
  ready: '',
  stopped: 'stopped, not shown',
  failed: 'failed, not shown',
  'taken-back': 'taken back',
}

/** The batches of a list, in the order in which they came. */
export function Batches({
  batches,
  chosen,
  onChoose,
}: {
  batches: readonly Batch[]
  chosen: string | null
  onChoose: (id: string) => void
}) {
  return (
    <>
      <div className="flex items-baseline justify-between px-2 pb-2">
        <h2 className="text-[15px]">Batches</h2>
        {batches.length > 1 ? (
          <TextButton aria-pressed={chosen === 'compare'} onClick={() => onChoose('compare')}>
            Side by side
          </TextButton>
        ) : null}
      </div>
      {batches.length === 0 ? <p className="px-2 text-soft">None yet.</p> : null}
      <ul>
        {batches.map((batch) => (
          <li key={batch.id} className="border-b border-line">
            <button
              type="button"
              aria-pressed={batch.id === chosen}
              onClick={() => onChoose(batch.id)}
              className={`w-full rounded-small px-2 py-2 text-left hover:bg-lichen ${batch.id === chosen ? 'bg-lichen' : ''}`}
            >
              <span className="flex justify-between gap-2">
                <span className="truncate font-semibold">{batch.name}</span>
                <span className="num">{count(batch.rows)}</span>
              </span>
              <span className="flex justify-between gap-2 text-[13px] text-soft">
                <span>
                  {SOURCE[batch.sourceKind]} · {date(batch.createdAt)}
                </span>
              </span>
              <span className="text-[13px] text-soft">
                {batch.state === 'ready' ? (
                  `${batch.rows === 0 ? 0 : Math.round((100 * batch.withMobile) / batch.rows)} % with a mobile`
                ) : (
                  <span className="text-straw-ink">{STATE[batch.state]}</span>
                )}
                {batch.held > 0 ? <span className="text-beet"> · {plural(batch.held, 'row')} held</span> : null}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  )
}
