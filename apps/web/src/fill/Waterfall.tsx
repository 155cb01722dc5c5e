import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core'
import { arrayMove, SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import type { FillEstimate, FillResult } from '@upper-field/contract'
import { ArrowDown, ArrowUp, GripVertical, SlidersHorizontal, X } from 'lucide-react'
import { useState } from 'react'
import { useReadFillsQuery } from '../api'
import { useProviders } from '../connections/useConnected'
import { useSortSensors } from '../kit/useSortSensors'
import { useListView } from '../shell/useListView'
import { count, money } from '../words/format'
import { ACCEPTS, priceText } from '../words/services'
import { ConditionsDialog } from './ConditionsDialog'
import { orderOf, type PlanDraft, withOrder } from './plan'
import { useFilling } from './useFilling'

interface WaterfallProps {
  readonly plan: PlanDraft
  readonly setPlan: (plan: PlanDraft) => void
  /** The group whose order is shown; null for everybody else. */
  readonly branch: number | null
}

/** The providers as falls of one stream: who can be asked, and what the latest run found at each. */
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
  return (
    <div>
      <p className="pb-1 font-semibold">
        <span className="num">{count(run?.contacts ?? estimate?.wanting ?? 0)}</span>{' '}
        {run ? 'entered the latest run' : 'lack what is wanted'}
      </p>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={[...order]} strategy={verticalListSortingStrategy}>
          <ol>
            {order.map((id, i) => (
              <Fall
                key={id}
                id={id}
                isFirst={i === 0}
                isLast={i === order.length - 1}
                estimate={estimate}
                run={run}
                onMove={(by) => move(id, by)}
                onLeaveOut={() => setOrder(order.filter((one) => one !== id))}
                condition={plan.conditions[id]}
                onCondition={(condition) => setPlan({ ...plan, conditions: { ...plan.conditions, [id]: condition } })}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {run ? (
        <p className="pt-1">
          <span className="num font-semibold">{count(run.contacts - run.found)}</span> without all of it at its end ·{' '}
          <span className="num">{money(run.spent)}</span> of <span className="num">{money(run.plan.budget)}</span> spent
          {run.found > 0 ? (
            <>
              {' · '}
              <span className="num font-semibold">{money(run.spent / run.found)}</span> for each that has it now
            </>
          ) : null}
        </p>
      ) : null}
    </div>
  )
}

interface FallProps {
  readonly id: string
  readonly isFirst: boolean
  readonly isLast: boolean
  readonly estimate: FillEstimate | undefined
  readonly run: FillResult | undefined
  readonly onMove: (by: number) => void
  readonly onLeaveOut: () => void
  readonly condition: Condition | undefined
  readonly onCondition: (condition: Condition) => void
}

type Condition = PlanDraft['conditions'][string]

const NOBODY = { askable: 0, askedLately: 0 } as const

function Fall(props: FallProps) {
  const { id, isFirst, isLast, estimate, run, onMove, onLeaveOut, condition, onCondition } = props
  const [isOpen, setIsOpen] = useState(false)
  const { attributes, listeners, setNodeRef, transform } = useSortable({ id })
  const service = useProviders()?.find(({ provider }) => provider === id)
  const { askable, askedLately } = estimate?.providers.find(({ provider }) => provider === id) ?? NOBODY
  const result = run?.providers.find(({ provider }) => provider === id)
  const whole = Math.max(1, run?.contacts ?? estimate?.wanting ?? 1)
  const entered = result?.asked ?? askable
  const name = service?.name ?? id
  return (
    <li
      ref={setNodeRef}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
      className="grid grid-cols-[24px_176px_minmax(0,1fr)_minmax(0,230px)_116px] items-center gap-3 py-1"
    >
      <button
        type="button"
        aria-label={`Drag ${name}`}
        className="cursor-grab text-soft"
        {...attributes}
        {...listeners}
      >
        <GripVertical size={18} aria-hidden="true" />
      </button>
      <div>
        <div className="font-semibold">{name}</div>
        <div className="text-[12.5px] text-soft">{service ? priceText(service) : ''}</div>
        {condition ? <div className="text-[12.5px] text-soft">{conditionText(condition)}</div> : null}
      </div>
      <Stream
        share={entered / whole}
        accepted={(result?.accepted ?? 0) / whole}
        aside={(result?.setAside ?? 0) / whole}
      />
      <p className="text-[13px]">
        {result ? (
          <>
            <span className="num font-semibold">{count(result.accepted)} usable</span> of{' '}
            <span className="num">{count(result.asked)}</span> asked
            <span className="block text-soft">
              {count(result.setAside)} set aside{result.waiting > 0 ? ` · ${count(result.waiting)} awaited` : ''}
              {result.failed > 0 ? ` · ${count(result.failed)} failed` : ''} · {money(result.cost)}
            </span>
            {result.isSetAside ? (
              <span className="block text-beet">kept failing: the run went on without it</span>
            ) : null}
          </>
        ) : (
          <span className="text-soft">
            can be asked about {count(askable)}
            {askedLately > 0 ? `, not again about ${count(askedLately)}` : ''}
          </span>
        )}
      </p>
      <div className="flex gap-1">
        <button
          type="button"
          aria-label={`Conditions for ${name}`}
          className="rounded-small p-1 hover:bg-lichen"
          onClick={() => setIsOpen(true)}
        >
          <SlidersHorizontal size={16} aria-hidden="true" />
        </button>
        {isOpen ? (
          <ConditionsDialog
            name={name}
            accepts={service?.accepts ?? []}
            condition={condition}
            onKeep={(next) => {
              onCondition(next)
              setIsOpen(false)
            }}
            onClose={() => setIsOpen(false)}
          />
        ) : null}
        <button
          type="button"
          aria-label={`Ask ${name} earlier`}
          disabled={isFirst}
          onClick={() => onMove(-1)}
          className="rounded-small p-1 hover:bg-lichen disabled:opacity-30"
        >
          <ArrowUp size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          aria-label={`Ask ${name} later`}
          disabled={isLast}
          onClick={() => onMove(1)}
          className="rounded-small p-1 hover:bg-lichen disabled:opacity-30"
        >
          <ArrowDown size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          aria-label={`Leave ${name} out`}
          disabled={isFirst && isLast}
          className="rounded-small p-1 hover:bg-lichen disabled:opacity-30"
          onClick={onLeaveOut}
        >
          <X size={16} aria-hidden="true" />
        </button>
      </div>
    </li>
  )
}

/** The conditions of a step, in short. */
function conditionText({ minScore, mostAsked, inputs }: Condition): string {
  return [
    minScore > 0 ? `score from ${minScore}` : '',
    mostAsked === null ? '' : `at most ${count(mostAsked)}`,
    inputs.length > 0 ? `by ${inputs.map((input) => ACCEPTS[input]).join(' or ')}` : '',
  ]
    .filter(Boolean)
    .join(' · ')
}

/** The stream that reaches a provider, and the part of it that is drawn off as usable. */
function Stream({ share, accepted, aside }: { share: number; accepted: number; aside: number }) {
  const height = (part: number) => Math.max(part > 0 ? 1.5 : 0, part * 30)
  return (
    <svg viewBox="0 0 300 44" preserveAspectRatio="none" className="h-11 w-full" aria-hidden="true">
      <rect x="0" y="2" width="90" height={height(share)} fill="var(--slate)" opacity="0.45" />
      <path
        d={`M90 2C140 2 160 2 300 2V${2 + height(accepted)}C160 ${2 + height(accepted)} 140 ${2 + height(accepted)} 90 ${2 + height(accepted)}Z`}
        fill="var(--moss)"
      />
      {aside === 0 ? null : (
        <path
          d={`M90 ${4 + height(accepted)}C110 ${4 + height(accepted)} 118 ${20 + height(accepted)} 120 43H${120 - height(aside)}C112 34 100 ${4 + height(accepted) + height(aside)} 90 ${4 + height(accepted) + height(aside)}Z`}
          fill="var(--straw)"
        />
      )}
    </svg>
  )
}
