import { useReadPilesQuery } from '../api'
import { Glyph } from '../kit/Glyph'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'
import { LINE } from '../words/sentences'

const STATUSES = [
  ['in-service', 'In service', 'var(--moss)'],
  ['out-of-service', 'Out of service', 'var(--beet)'],
  ['unreachable', 'Unreachable', 'var(--straw)'],
  ['not-checked', 'Not checked', 'var(--edge)'],
] as const
const LARGEST = 30

/** Line type against status, each count as a square of its size. */
export function LineField() {
  const view = useListView()
  const { data } = useReadPilesQuery({ params: { listId: view.listId }, query: { filter: view.text } })
  const lines = data?.lines ?? {}
  const types = [...new Set(Object.keys(lines).map((key) => key.split('/')[0] ?? ''))].filter(
    (type) => type !== 'unknown',
  )
  const most = Math.max(1, ...Object.values(lines))
  if (types.length === 0) return null
  return (
    <table className="mb-4 w-full max-w-[640px]">
      <thead className="text-left text-[13px] text-soft">
        <tr>
          <th className="w-44 font-normal">
            <span className="sr-only">Line type</span>
          </th>
          {STATUSES.map(([status, name]) => (
            <th key={status} className="pb-1 font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {types.map((type) => (
          <tr key={type} className="border-t border-line">
            <th scope="row" className="py-1 text-left font-normal">
              <Glyph type={type} /> {LINE[type]}
            </th>
            {STATUSES.map(([status, , color]) => {
              const n = lines[`${type}/${status}`] ?? 0
              const side = n === 0 ? 0 : Math.max(3, Math.sqrt(n / most) * LARGEST)
              return (
                <td key={status} className="h-9">
                  <span className="flex items-center gap-2">
                    <span className="flex w-8 justify-center" aria-hidden="true">
                      <span className="rounded-[1px]" style={{ width: side, height: side, background: color }} />
                    </span>
                    <span className={`num text-[13px] ${n === 0 ? 'text-soft' : ''}`}>{count(n)}</span>
                  </span>
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
