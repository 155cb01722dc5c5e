import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core'
import { arrayMove, SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import type { FillResult } from '@upper-field/contract'
import { useReadFillsQuery } from '../api'
import { useSortSensors } from '../kit/useSortSensors'
import { useListView } from '../shell/useListView'
import { count, money } from '../words/format'
import { Fall } from './Fall'
import { partOf, waterfallFigures } from './fallParts'
import { streamsOf } from './fallShape'
import { orderOf, type PlanDraft, withOrder } from './plan'
import { useFilling } from './useFilling'

interface WaterfallProps {
  readonly plan: PlanDraft
  readonly setPlan: (plan: PlanDraft) => void
  /** The group whose order is shown; null for everybody else. */
  readonly branch: number | null
}

/** The providers as falls of one stream: who can be asked, and what the latest run drew off at each. */
export function Waterfall({ plan, setPlan, branch }: WaterfallProps) {
  const { listId } = useListView()
  const { estimate } = useFilling(plan)
  const { data: runs = [] } = useReadFillsQuery({ params: { listId } })
  const order = orderOf(plan, branch)
  const setOrder = (next: readonly string[]) => setPlan(withOrder(plan, branch, next))
  const sensors = useSortSensors()
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id)
      setOrder(arrayMove([...order], order.indexOf(String(active.id)), order.indexOf(String(over.id))))
  }
  const move = (id: string, by: number) => setOrder(arrayMove([...order], order.indexOf(id), order.indexOf(id) + by))
  const run = runs[0]
  const { whole, falls, left, runsOff } = waterfallFigures(order, estimate, run)
  const streams = streamsOf([...falls.map(({ entered }) => entered), runsOff].map((n) => partOf(n, whole)))
  return (
    <div>
      <p className="pb-1 pl-8 font-semibold">
        <span className="num">{count(whole)}</span> {run ? 'entered the latest run' : 'lack what is wanted'}
      </p>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={[...order]} strategy={verticalListSortingStrategy}>
          <ol>
            {falls.map((figures, at) => {
              const [stream, next] = streams.slice(at, at + 2)
              return stream && next ? (
                <Fall
                  key={figures.id}
                  figures={figures}
                  whole={whole}
                  stream={stream}
                  next={next}
                  isFirst={at === 0}
                  isLast={at === order.length - 1}
                  onMove={(by) => move(figures.id, by)}
                  onLeaveOut={() => setOrder(order.filter((one) => one !== figures.id))}
                  condition={plan.conditions[figures.id]}
                  onCondition={(condition) =>
                    setPlan({ ...plan, conditions: { ...plan.conditions, [figures.id]: condition } })
                  }
                />
              ) : null
            })}
          </ol>
        </SortableContext>
      </DndContext>
      {run ? <RunEnd run={run} left={left ?? 0} indent={(streams.at(-1)?.left ?? 0) + 24} /> : null}
    </div>
  )
}

function RunEnd({ run, left, indent }: { run: FillResult; left: number; indent: number }) {
  return (
    <p className="pt-0.5" style={{ paddingLeft: indent }}>
      <span className="num font-semibold">{count(left)}</span> without all of it at its end ·{' '}
      <span className="num">{money(run.spent)}</span> of <span className="num">{money(run.plan.budget)}</span> spent
      {run.found > 0 ? (
        <>
          {' · '}
          <span className="num font-semibold">{money(run.spent / run.found)}</span> for each that has it now
        </>
      ) : null}
    </p>
  )
}
