import type { TrailLine } from '@upper-field/contract'
import { useVirtualRows } from '../kit/useVirtualRows'
import { VirtualRows } from '../kit/VirtualRows'
import { useListView } from '../shell/useListView'
import { money } from '../words/format'
import { Ledges } from './Ledges'
import { outcomeText } from './trailText'

const ROW = 44

/** The courses that are known so far; more are read as the end comes near. */
export function TrailTable({ lines, total, onEnd }: { lines: readonly TrailLine[]; total: number; onEnd: () => void }) {
  const view = useListView()
  const table = useVirtualRows({ count: lines.length, height: ROW, ahead: 20, onNearEnd: onEnd })
  return (
    <div role="table" aria-label="Courses" aria-rowcount={total} className="flex min-h-0 flex-1 flex-col">
      <div role="row" className={`${TRACKS} border-b border-edge pb-1.5 text-[13px] font-semibold text-soft`}>
        {['Contact', '', 'Asked, in turn', 'What came of it', 'Cost'].map((title) => (
          <div role="columnheader" key={title} className={title === 'Cost' ? 'text-right' : ''}>
            {title || <span className="sr-only">Country</span>}
          </div>
        ))}
      </div>
      <VirtualRows
        table={table}
        items={lines}
        idOf={({ contactId }) => contactId}
        height={ROW}
        chosen={view.contactId}
        onChoose={view.choose}
        className={TRACKS}
      >
        {(line) => <Course line={line} />}
      </VirtualRows>
      {lines.length === 0 ? <p className="px-2 py-4 text-soft">Nobody fits this filter.</p> : null}
    </div>
  )
}

const TRACKS = 'grid grid-cols-[minmax(0,1fr)_30px_minmax(0,2.3fr)_minmax(0,1.25fr)_66px] gap-2 px-2'

function Course({ line }: { line: TrailLine }) {
  return (
    <>
      <div role="cell" className="truncate font-semibold">
        {line.fullName || <span className="font-normal text-soft">no name</span>}
      </div>
      <div role="cell" className="text-[13px] text-soft">
        {line.country}
      </div>
      <div role="cell" className="min-w-0">
        <Ledges steps={line.steps} />
      </div>
      <div
        role="cell"
        className={`truncate text-[13px] ${line.taken.length > 0 ? 'num' : 'text-soft'}`}
        title={outcomeText(line)}
      >
        {outcomeText(line)}
      </div>
      <div role="cell" className="num text-right text-[13px]">
        {line.cost > 0 ? money(line.cost) : '–'}
      </div>
    </>
  )
}
