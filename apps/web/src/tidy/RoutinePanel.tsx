import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core'
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import type { TidyState } from '@upper-field/contract'
import {
  type ChangeCode,
  CODES_OF,
  isRepeatableStep,
  STEP_KINDS,
  type Step,
  type StepKind,
} from '@upper-field/core/tidy'
import { GripVertical } from 'lucide-react'
import { useSortSensors } from '../kit/useSortSensors'
import { count } from '../words/format'
import { REPAIR_NAME, STEP } from '../words/tidying'
import type { RoutineDraft } from './useRoutineDraft'
import { useTidyView } from './useTidyView'

/** The routine: its steps in order with what each changed, and below the repairs of the open one. */
export function RoutinePanel({
  state,
  draft,
  shown,
}: {
  state: TidyState
  draft: RoutineDraft
  shown: ChangeCode | null
}) {
  const view = useTidyView()
  const { steps } = draft.routine
  const sensors = useSortSensors()
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) draft.move(String(active.id), String(over.id))
  }
  const open = steps.find(({ id }) => id === view.stepId) ?? stepOfCode(steps, shown) ?? steps[0]
  return (
    <aside
      aria-label="Routine"
      className="flex h-full w-[236px] shrink-0 flex-col overflow-y-auto border-r border-line px-3 py-3"
    >
      <div className="flex items-baseline justify-between gap-2 px-1 pb-1">
        <h3>{state.name ? `Routine “${state.name}”` : state.isProposed ? 'Proposed routine' : 'Routine'}</h3>
        <span className="text-[13px] text-soft">
          {steps.filter(({ isOn }) => isOn).length} of {steps.length} on
        </span>
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={steps.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <ol>
            {steps.map((step, i) => (
              <StepLine
                key={step.id}
                step={step}
                place={i + 1}
                isOpen={step === open}
                changed={changedBy(step.kind, state.counts)}
                onOpen={() => view.openStep(step.id)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <AddStep draft={draft} />
      {open ? <Repairs step={open} counts={state.counts} shown={shown} /> : null}
    </aside>
  )
}

const changedBy = (kind: StepKind, counts: Record<string, number>): number =>
  CODES_OF[kind].reduce((sum, code) => sum + (counts[code] ?? 0), 0)

const stepOfCode = (steps: readonly Step[], code: ChangeCode | null): Step | undefined =>
  code === null ? undefined : steps.find(({ kind }) => CODES_OF[kind].includes(code))

function StepLine({
  step,
  place,
  isOpen,
  changed,
  onOpen,
}: {
  step: Step
  place: number
  isOpen: boolean
  changed: number
  onOpen: () => void
}) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.id })
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-center rounded-small ${isOpen ? 'bg-lichen' : 'hover:bg-hill'}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${STEP[step.kind].title}`}
        className="flex h-7 w-6 shrink-0 cursor-grab items-center justify-center text-soft"
      >
        <GripVertical size={13} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-pressed={isOpen}
        onClick={onOpen}
        className="flex min-w-0 flex-1 items-baseline gap-1 py-1 pr-0.5 text-left leading-5"
      >
        <span className="num w-4 shrink-0 text-[12.5px] text-soft">{place}</span>
        <span className={`min-w-0 flex-1 break-words ${step.isOn ? '' : 'text-soft line-through'}`}>
          {titleOf(step)}
        </span>
        {step.isOn ? null : <span className="sr-only">switched off</span>}
        <span className={`num text-[12.5px] ${step.isOn ? 'text-soft' : 'text-soft line-through'}`}>
          {count(changed)}
        </span>
      </button>
    </li>
  )
}

const titleOf = (step: Step): string =>
  step.kind === 'derive' && step.options.column !== '' ? step.options.column : STEP[step.kind].title

function AddStep({ draft }: { draft: RoutineDraft }) {
  const taken = new Set(draft.routine.steps.map(({ kind }) => kind))
  const left = STEP_KINDS.filter((kind) => isRepeatableStep(kind) || !taken.has(kind))
  return (
    <div className="px-1 pt-2">
      <select
        aria-label="Add a step"
        value=""
        onChange={(event) => draft.add(event.target.value as StepKind)}
        className="min-h-7 w-full rounded-small border border-edge bg-surface px-1"
      >
        <option value="" disabled>
          Add a step …
        </option>
        {left.map((kind) => (
          <option key={kind} value={kind}>
            {STEP[kind].title}
          </option>
        ))}
      </select>
    </div>
  )
}

/** What the open step mends, most doubtful first, with how many contacts each repair touched. */
function Repairs({ step, counts, shown }: { step: Step; counts: Record<string, number>; shown: ChangeCode | null }) {
  const view = useTidyView()
  const codes = CODES_OF[step.kind].filter((code) => (counts[code] ?? 0) > 0)
  const most = Math.max(1, ...codes.map((code) => counts[code] ?? 0))
  return (
    <section className="pt-4">
      <h3 className="px-1 pb-1">{titleOf(step)}: repairs</h3>
      {codes.length === 0 ? <p className="px-1 text-[13px] text-soft">This step has changed nothing here.</p> : null}
      <ul>
        {codes.map((code) => (
          <li key={code}>
            <button
              type="button"
              aria-pressed={shown === code}
              onClick={() => view.openCode(code)}
              className={`relative flex w-full items-baseline rounded-small px-1 py-1 text-left text-[13.5px] leading-[18px] hover:bg-lichen ${shown === code ? 'bg-lichen font-semibold' : ''}`}
            >
              <span className="min-w-0 flex-1">{REPAIR_NAME[code].title}</span>
              <span className="num pl-2 text-soft">{count(counts[code] ?? 0)}</span>
              <span
                aria-hidden="true"
                className="absolute bottom-0 left-1 h-0.5 bg-contour"
                style={{ width: `calc(${Math.max(2, ((counts[code] ?? 0) / most) * 100)}% - 8px)` }}
              />
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
