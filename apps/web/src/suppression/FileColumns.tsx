import type { ColumnUse } from '@upper-field/core/pair'
import type { SuppressionFileHead } from './suppressionWorker'

const USE: Record<Exclude<ColumnUse, null>, string> = {
  numbers: 'Numbers',
  emails: 'E-mails',
  domains: 'Domains',
  hashes: 'SHA-256 hashes',
}

/** The columns of a suppression file side by side, what each holds, and its first cells. */
export function FileColumns({
  head,
  uses,
  onChange,
}: {
  head: SuppressionFileHead
  uses: readonly ColumnUse[]
  onChange: (uses: readonly ColumnUse[]) => void
}) {
  const columns = head.headings.map((heading, at) => ({ at, name: heading || `Column ${at + 1}` }))
  const rows = head.firstRows.map((cells, at) => ({ at, cells }))
  const setUse = (column: number, use: ColumnUse) => onChange(uses.map((one, at) => (at === column ? use : one)))
  return (
    <div className="overflow-x-auto border border-line bg-surface">
      <table>
        <thead className="text-left">
          <tr className="border-b border-line align-bottom">
            {columns.map(({ at, name }) => (
              <th key={at} scope="col" className="min-w-36 px-2 py-1.5">
                <span className="block max-w-48 truncate pb-1">{name}</span>
                <select
                  aria-label={`What “${name}” holds`}
                  value={uses[at] ?? ''}
                  onChange={({ target }) => setUse(at, (target.value || null) as ColumnUse)}
                  className={`min-h-7 w-full rounded-small border px-1 font-normal ${uses[at] ? 'border-moss bg-lichen' : 'border-edge bg-surface text-soft'}`}
                >
                  <option value="">not used</option>
                  {Object.entries(USE).map(([use, title]) => (
                    <option key={use} value={use}>
                      {title}
                    </option>
                  ))}
                </select>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.at} className="border-b border-line last:border-0">
              {columns.map(({ at }) => (
                <td key={at} className={`max-w-48 truncate px-2 py-1 ${uses[at] ? '' : 'text-soft'}`}>
                  <bdi>{row.cells[at] ?? ''}</bdi>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
