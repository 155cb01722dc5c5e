import { useSortable } from '@dnd-kit/sortable'
import { ArrowDown, ArrowUp, GripVertical, SlidersHorizontal, X } from 'lucide-react'
import { useState } from 'react'
import { useReadSpendMonthQuery } from '../api'
import { useProviders } from '../connections/useConnected'
import { IconButton } from '../kit/IconButton'
import { standingOf } from '../spend/spendLines'
import { count, money, percent } from '../words/format'
import { ACCEPTS, priceText } from '../words/services'
import { ConditionsDialog } from './ConditionsDialog'
import { FallDrawing } from './FallDrawing'
import { type FallFigures, partOf } from './fallParts'
import { BOX, END, FALL, type Stream } from './fallShape'
import type { PlanDraft } from './plan'

type Condition = PlanDraft['conditions'][string]

interface FallProps {
  readonly figures: FallFigures
  readonly whole: number
  /** The stream at this fall, and at the one below. */
  readonly stream: Stream
  readonly next: Stream
  readonly isFirst: boolean
  readonly isLast: boolean
  readonly onMove: (by: number) => void
  readonly onLeaveOut: () => void
  readonly condition: Condition | undefined
  readonly onCondition: (condition: Condition) => void
}

/** One provider: what of the stream reaches it, what is drawn off, and how it is moved. */
export function Fall(props: FallProps) {
  const { figures, whole, stream, next, isFirst, isLast, onMove, onLeaveOut, condition, onCondition } = props
  const { id, entered, result } = figures
  const [isOpen, setIsOpen] = useState(false)
  const { attributes, listeners, setNodeRef, transform } = useSortable({ id })
  const service = useProviders()?.find(({ provider }) => provider === id)
  const name = service?.name ?? id
  const { data: month } = useReadSpendMonthQuery({})
  const ofMonth = month?.providers.find(({ provider }) => provider === id)
  const isSpent = ofMonth !== undefined && standingOf({ ...ofMonth, promised: ofMonth.waiting }) === 'reached'
  const right = stream.left + stream.width
  return (
    <li
      ref={setNodeRef}
      style={{
        height: isLast ? BOX.top + BOX.height + END : FALL,
        ...(transform ? { transform: `translateY(${transform.y}px)` } : {}),
      }}
      className="relative grid grid-cols-[24px_minmax(0,1fr)_172px_112px] gap-x-3"
    >
      <button
        type="button"
        aria-label={`Drag ${name}`}
        className="cursor-grab self-start text-soft"
        style={{ marginTop: BOX.top + 5 }}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={18} aria-hidden="true" />
      </button>
      <div className="relative">
        <FallDrawing
          stream={stream}
          next={next}
          bottom={isLast ? BOX.top + BOX.height + END : FALL}
          accepted={partOf(result?.accepted ?? 0, whole)}
          aside={partOf(result?.setAside ?? 0, whole)}
          isAhead={result === null}
        />
        <div
          className="absolute flex items-center rounded-small border border-edge bg-surface px-3 font-semibold"
          style={{ left: stream.left - 6, top: BOX.top, height: BOX.height, width: 128 }}
        >
          <span className="truncate">{name}</span>
        </div>
        <div className="absolute whitespace-nowrap text-[12.5px] text-soft" style={{ left: right + 14, top: 0 }}>
          {service ? priceText(service) : ''}
        </div>
        {condition && conditionText(condition) !== '' ? (
          <div
            className="absolute right-0 truncate text-[12.5px] text-soft"
            style={{ left: Math.max(right, stream.left + 128) + 14, top: BOX.top + BOX.height + 2 }}
          >
            {conditionText(condition)}
          </div>
        ) : null}
      </div>
      <Gave figures={figures} entered={entered} isSpent={isSpent} />
      <div className="flex gap-1 self-start" style={{ marginTop: BOX.top }}>
        <IconButton label={`Conditions for ${name}`} onClick={() => setIsOpen(true)}>
          <SlidersHorizontal size={16} aria-hidden="true" />
        </IconButton>
        {isOpen ? (
          <ConditionsDialog
            name={name}
            accepts={service?.accepts ?? []}
            condition={condition}
            onKeep={(kept) => {
              onCondition(kept)
              setIsOpen(false)
            }}
            onClose={() => setIsOpen(false)}
          />
        ) : null}
        <IconButton label={`Ask ${name} earlier`} isOff={isFirst} onClick={() => onMove(-1)}>
          <ArrowUp size={16} aria-hidden="true" />
        </IconButton>
        <IconButton label={`Ask ${name} later`} isOff={isLast} onClick={() => onMove(1)}>
          <ArrowDown size={16} aria-hidden="true" />
        </IconButton>
        <IconButton label={`Leave ${name} out`} isOff={isFirst && isLast} onClick={onLeaveOut}>
          <X size={16} aria-hidden="true" />
        </IconButton>
      </div>
    </li>
  )
}

/** What a provider gave, or before a run, about how many it can be asked. */
function Gave(props: { figures: FallFigures; entered: number; isSpent: boolean }) {
  const { entered, isSpent } = props
  const { result, askedLately } = props.figures
  const spent = isSpent ? <span className="block text-beet">its limit for the month is reached</span> : null
  if (!result)
    return (
      <p className="self-start text-[13px] text-soft" style={{ marginTop: BOX.top - 2 }}>
        can be asked about <span className="num">{count(entered)}</span>
        {askedLately > 0 ? <span className="block">not again about {count(askedLately)}</span> : null}
        {spent}
      </p>
    )
  const others = [
    result.setAside > 0 ? `${count(result.setAside)} set aside` : '',
    result.waiting > 0 ? `${count(result.waiting)} awaited` : '',
    result.failed > 0 ? `${count(result.failed)} failed` : '',
    money(result.cost),
  ]
  return (
    <p className="self-start text-[13px]" style={{ marginTop: BOX.top - 14 }}>
      <span className="num font-semibold">{count(result.accepted)}</span> <span className="font-semibold">usable</span>
      <span className="block text-[12.5px] text-soft">
        {result.asked > 0 ? `${percent(result.accepted / result.asked)} of ${count(result.asked)} asked` : 'not asked'}
      </span>
      <span className="block text-[12.5px] text-soft">{others.filter(Boolean).join(' · ')}</span>
      {result.isSetAside ? <span className="block text-beet">kept failing: the run went on</span> : null}
      {spent}
    </p>
  )
}

/** The conditions of a step, in short. */
function conditionText({ minScore, mostAsked, inputs, countries }: Condition): string {
  return [
    minScore > 0 ? `score from ${minScore}` : '',
    mostAsked === null ? '' : `at most ${count(mostAsked)}`,
    countries.length > 0 ? `only ${countries.join(', ')}` : '',
    inputs.length > 0 ? `by ${inputs.map((input) => ACCEPTS[input]).join(' or ')}` : '',
  ]
    .filter(Boolean)
    .join(' · ')
}
