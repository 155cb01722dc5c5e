import {
  ALL_FIELDS,
  DATE_FIELDS,
  FILTER_FIELDS,
  FUNCTIONS,
  LEVELS,
  PRESENT,
  TEXT_FIELDS,
} from '@upper-field/core/split'
import { useReadColumnsQuery } from '../api'
import { Dialog } from '../kit/Dialog'
import { useListView } from './useListView'

const ROWS: readonly (readonly [string, string])[] = [
  [
    'oldershaw causeway',
    'both words stand somewhere: in name, company, street, numbers, addresses, the start of extra cells',
  ],
  ['wu', 'a word begins with these two letters'],
  ['"guest house"', 'the words side by side'],
  ['country:GB,IE line:mobile', 'one of several values; all terms have to hold'],
  ['company:lodge city=Kelso', 'holds a text; is a text'],
  ['missing:email has:street', 'what is not known, and what is'],
  ['added>2026-11-01 gathered:2026-01..2026-06', 'dates, by year, month or day; between two'],
  ['cost>0.5 joined>=2 value>1000', 'euros spent on a contact; rows joined into it; what a customer is worth'],
  ['seats>20 opening:terrace', 'columns of your own files, by their headings: small letters, joined by dashes'],
  ['function:purchasing level:head,executive', 'what the title says, in seven languages'],
  ['asked:ID found:ID sent:ID', 'providers that were asked or found something; destinations it was sent to'],
  ['audience:"Autumn terraces"', 'who is in an audience now'],
  ['lane:text or (lane:call call:now)', 'either; brackets put together'],
  ['not suppressed:calls', 'none of them'],
]

/** How a filter is written, where it is typed. */
export function FilterHelp({ onClose }: { onClose: () => void }) {
  const { listId } = useListView()
  const { data: columns = [] } = useReadColumnsQuery({ params: { listId } })
  return (
    <Dialog title="How filters are written" isOpen isWide onClose={onClose}>
      <table className="w-full text-[14px]">
        <tbody>
          {ROWS.map(([example, what]) => (
            <tr key={example} className="border-b border-line align-top">
              <td className="num whitespace-nowrap py-1 pr-4 text-[13px]">{example}</td>
              <td className="py-1">{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="grid grid-cols-[110px_minmax(0,1fr)] gap-y-1 pt-3 text-[13.5px]">
        <dt className="text-soft">Facets</dt>
        <dd>{FILTER_FIELDS.join(', ')}</dd>
        <dt className="text-soft">Texts</dt>
        <dd>{TEXT_FIELDS.join(', ')}</dd>
        <dt className="text-soft">Dates</dt>
        <dd>{DATE_FIELDS.join(', ')}</dd>
        <dt className="text-soft">Others</dt>
        <dd>
          {ALL_FIELDS.filter(
            (field) => ![...FILTER_FIELDS, ...TEXT_FIELDS, ...DATE_FIELDS].some((one) => one === field),
          ).join(', ')}
        </dd>
        <dt className="text-soft">Functions</dt>
        <dd>{FUNCTIONS.join(', ')}</dd>
        <dt className="text-soft">Levels</dt>
        <dd>{LEVELS.join(', ')}</dd>
        <dt className="text-soft">Missing, has</dt>
        <dd>{PRESENT.join(', ')}</dd>
        {columns.length > 0 ? (
          <>
            <dt className="text-soft">Own columns</dt>
            <dd>{columns.map(({ key }) => key).join(', ')}</dd>
          </>
        ) : null}
      </dl>
    </Dialog>
  )
}
