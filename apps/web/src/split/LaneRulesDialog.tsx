import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core'
import { arrayMove, SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import type { LaneRules } from '@upper-field/contract'
import { laneIdFor, mistakesInRules, USES, type Use } from '@upper-field/core/split'
import { ArrowDown, ArrowUp, GripVertical, X } from 'lucide-react'
import { useState } from 'react'
import { useKeepLaneRulesMutation } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { IconButton } from '../kit/IconButton'
import { useSortSensors } from '../kit/useSortSensors'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'

type Rule = LaneRules['rules'][number]

const USE_NAME: Readonly<Record<Use, string>> = {
  texts: 'to be texted',
  calls: 'to be called',
  post: 'to be written to',
  ads: 'to be shown ads',
}

/** The rules of a list's lanes, in order: the first that takes a contact keeps it. */
export function LaneRulesDialog({ kept, onClose }: { kept: LaneRules; onClose: () => void }) {
  const [rules, setRules] = useState<readonly Rule[]>(kept.rules)
  const [keep, keeping] = useKeepLaneRulesMutation()
  const sensors = useSortSensors()
  const { listId, columns } = useListView()
  const mistakes = mistakesInRules(rules, columns)
  const change = (at: number, changed: Partial<Rule>) =>
    setRules(rules.map((rule, i) => (i === at ? { ...rule, ...changed } : rule)))
  const drop = ({ active, over }: DragEndEvent) => {
    const at = (id: unknown) => rules.findIndex(({ lane }) => lane === id)
    if (over && over.id !== active.id) setRules(arrayMove([...rules], at(active.id), at(over.id)))
  }
  const add = () => {
    const name = 'New lane'
    const lane = laneIdFor(
      name,
      rules.map((rule) => rule.lane),
    )
    setRules([{ lane, name, use: 'calls', filter: '' }, ...rules])
  }
  /** A lane is called by what it is named in the end; those that were there keep their ids. */
  const isFresh = ({ lane }: Rule) => !kept.rules.some((rule) => rule.lane === lane)
  const laneFor = ({ name }: Rule, at: number) =>
    laneIdFor(
      name,
      rules.filter((_, i) => i !== at).map(({ lane }) => lane),
    )
  const submit = async (next: readonly Rule[] | null) => {
    const named = next?.map((rule, at) => (isFresh(rule) ? { ...rule, lane: laneFor(rule, at) } : rule)) ?? null
    const { error } = await keep({ params: { listId }, body: { rules: named } })
    if (!error) onClose()
  }
  return (
    <Dialog title="Rules of the lanes" isOpen isWide onClose={onClose}>
      <div className="flex flex-col gap-3">
        <p className="text-soft">
          Each contact goes to the first lane that takes it: it can be reached so, no suppression list forbids it, and
          the filter means it. Whoever none takes is parked. By hand beats these rules.
        </p>
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={rules.map(({ lane }) => lane)} strategy={verticalListSortingStrategy}>
            <ol className="flex flex-col gap-1.5">
              {rules.map((rule, at) => (
                <RuleRow
                  key={rule.lane}
                  rule={rule}
                  mistake={mistakes.find((one) => one.at === at)?.message}
                  isFirst={at === 0}
                  isLast={at === rules.length - 1}
                  onChange={(changed) => change(at, changed)}
                  onMove={(by) => setRules(arrayMove([...rules], at, at + by))}
                  onRemove={() => setRules(rules.filter((_, i) => i !== at))}
                />
              ))}
            </ol>
          </SortableContext>
        </DndContext>
        <p>
          <TextButton onClick={add}>Add a lane</TextButton>
        </p>
        <Refused by={[keeping]} />
        <div className="flex justify-end gap-2">
          {kept.isOwn ? (
            <Button disabled={keeping.isLoading} onClick={() => void submit(null)}>
              Back to the usual lanes
            </Button>
          ) : null}
          <Button onClick={onClose}>Cancel</Button>
          <Button
            look="main"
            disabled={mistakes.length > 0 || rules.length === 0 || keeping.isLoading}
            onClick={() => void submit(rules)}
          >
            Decide by these rules
          </Button>
        </div>
      </div>
    </Dialog>
  )
}

interface RuleRowProps {
  readonly rule: Rule
  readonly mistake: string | undefined
  readonly isFirst: boolean
  readonly isLast: boolean
  readonly onChange: (changed: Partial<Rule>) => void
  readonly onMove: (by: number) => void
  readonly onRemove: () => void
}

const INPUT = 'min-h-8 w-full rounded-small border border-edge bg-surface px-2'

function RuleRow({ rule, mistake, isFirst, isLast, onChange, onMove, onRemove }: RuleRowProps) {
  const { attributes, listeners, setNodeRef, transform } = useSortable({ id: rule.lane })
  const name = rule.name || 'this lane'
  return (
    <li
      ref={setNodeRef}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
      className="grid grid-cols-[22px_130px_140px_minmax(0,1fr)_auto] items-center gap-2 rounded-small border border-line bg-surface p-1.5"
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
      <input
        aria-label={`Name of ${name}`}
        className={INPUT}
        value={rule.name}
        onChange={(event) => onChange({ name: event.target.value })}
      />
      <select
        aria-label={`What ${name} is for`}
        className={INPUT}
        value={rule.use}
        onChange={(event) => onChange({ use: event.target.value as Use })}
      >
        {USES.map((use) => (
          <option key={use} value={use}>
            {USE_NAME[use]}
          </option>
        ))}
      </select>
      <input
        aria-label={`Filter of ${name}`}
        className={`${INPUT} num text-[13px]`}
        placeholder="everybody"
        spellCheck={false}
        value={rule.filter}
        onChange={(event) => onChange({ filter: event.target.value })}
      />
      <span className="flex">
        <IconButton label={`Put ${name} earlier`} isOff={isFirst} onClick={() => onMove(-1)}>
          <ArrowUp size={16} aria-hidden="true" />
        </IconButton>
        <IconButton label={`Put ${name} later`} isOff={isLast} onClick={() => onMove(1)}>
          <ArrowDown size={16} aria-hidden="true" />
        </IconButton>
        <IconButton label={`Take ${name} out`} isOff={isFirst && isLast} onClick={onRemove}>
          <X size={16} aria-hidden="true" />
        </IconButton>
      </span>
      {mistake ? <p className="col-span-5 text-[13px] text-beet">{mistake}</p> : null}
    </li>
  )
}
