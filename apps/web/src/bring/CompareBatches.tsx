import type { Batch, BatchYield } from '@upper-field/contract'
import { useReadYieldsQuery } from '../api'
import { ReadState } from '../shell/Answer'
import { count, date, money } from '../words/format'
import { SOURCE } from '../words/sentences'

const share = (part: number, whole: number): string => (whole === 0 ? '–' : `${Math.round((100 * part) / whole)} %`)

/** What a batch cost for each contact that can be texted: its price and what was spent on its contacts. */
function costEach({ price }: Batch, { text, spent }: BatchYield): string {
  const cost = (price ?? 0) + spent
  return text === 0 || cost === 0 ? '–' : money(Math.round(cost / text))
}

const COLUMNS = [
  'Rows',
  'Held',
  'Joined',
  'Contacts',
  'Text',
  'Call',
  'Ads only',
  'Parked',
  'Out of service',
  'With e-mail',
  'Cost a text contact',
] // prettier-ignore

/** The batches of a list side by side, so that sources can be compared. */
export function CompareBatches({
  listId,
  batches,
  onChoose,
}: {
  listId: string
  batches: readonly Batch[]
  onChoose: (id: string) => void
}) {
  const asked = useReadYieldsQuery({ params: { listId } })
  const { data: yields = [] } = asked
  const shown = batches.flatMap((batch) => {
    const found = yields.find(({ batchId }) => batchId === batch.id)
    return found ? [{ batch, found }] : []
  })
  return (
    <section aria-label="Batches side by side">
      <h1>Batches side by side</h1>
      <p className="pb-3 text-soft">
        Rows = held + contacts + joined into others. Shares are of the contacts that stand for themselves.
      </p>
      <ReadState of={asked} what="what each batch gave" />
      <div className="overflow-x-auto">
        <table className="w-full min-w-[760px] text-[13px]">
          <thead className="text-right text-soft">
            <tr className="border-b border-edge align-bottom">
              <th className="py-1 text-left">Batch</th>
              {COLUMNS.map((column) => (
                <th key={column} className="px-1.5 font-semibold">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map(({ batch, found }) => (
              <tr key={batch.id} className="border-b border-line">
                <td className="max-w-[180px] py-1.5">
                  <button
                    type="button"
                    onClick={() => onChoose(batch.id)}
                    className="block max-w-full truncate text-left font-semibold text-slate underline underline-offset-2"
                  >
                    {batch.name}
                  </button>
                  <span className="text-soft">
                    {SOURCE[batch.sourceKind]} · {date(batch.gatheredOn ?? batch.createdAt)}
                  </span>
                </td>
                <Cell>{count(batch.rows)}</Cell>
                <Cell>{count(batch.held)}</Cell>
                <Cell>{count(found.joined)}</Cell>
                <Cell>{count(found.contacts)}</Cell>
                {[found.text, found.call, found.adsOnly, found.parked, found.outOfService, found.withEmail].map(
                  (n, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: the columns never change places
                    <Cell key={i}>
                      {count(n)} <span className="text-soft">{share(n, found.contacts)}</span>
                    </Cell>
                  ),
                )}
                <Cell>{costEach(batch, found)}</Cell>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

const Cell = ({ children }: { children: React.ReactNode }) => (
  <td className="num whitespace-nowrap px-1.5 py-1.5 text-right">{children}</td>
)
