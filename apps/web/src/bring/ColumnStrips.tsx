import { DndContext, type DragEndEvent, PointerSensor, useDroppable, useSensor, useSensors } from '@dnd-kit/core'
import {
  type CellKind,
  type ColumnFacts,
  FIELDS,
  type Field,
  type FieldSuggestion,
  isLeftOut,
  type Mapping,
  type OpenedTable,
  type SuggestionReason,
} from '@upper-field/core/table'
import { useState } from 'react'
import { SelectField } from '../kit/Field'
import { count, shortened } from '../words/format'
import { DAMAGE, FIELD, KIND, SUGGESTION } from '../words/sentences'
import { FieldPalette } from './FieldPalette'

/** What the operator sees of a column: suggested, set by hand, or as last time. */
export type MappingSource = 'suggested' | 'set' | 'last-time'

interface StripsProps {
  readonly table: OpenedTable
  readonly mapping: Mapping
  readonly sourceOf: (column: number) => MappingSource
  readonly onMap: (column: number, field: Field | null) => void
}

const GRID = 'grid grid-cols-[minmax(0,1fr)_150px_minmax(0,1.6fr)_minmax(0,1.3fr)] gap-3'

/** Each column as a strip: what it is called, what it becomes, what it holds and what has been done to it. */
export function ColumnStrips({ table, mapping, sourceOf, onMap }: StripsProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }))
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) onMap(Number(over.id), active.id as Field)
  }
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <FieldPalette mapping={mapping} />
      <div className={`${GRID} border-b border-edge pb-1 text-[13px] font-semibold text-soft`}>
        <span>Column</span>
        <span>Becomes</span>
        <span>What it holds</span>
        <span>First cells</span>
      </div>
      {table.columns.map((facts, i) =>
        isLeftOut(facts) ? null : (
          <Strip
            // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
            key={i}
            column={i}
            facts={facts}
            field={mapping[i] ?? null}
            suggestion={table.suggestions[i]}
            source={sourceOf(i)}
            onMap={onMap}
          />
        ),
      )}
    </DndContext>
  )
}

interface StripProps {
  readonly column: number
  readonly facts: ColumnFacts
  readonly field: Field | null
  readonly suggestion: FieldSuggestion | undefined
  readonly source: MappingSource
  readonly onMap: StripsProps['onMap']
}

function Strip({ column, facts, field, suggestion, source, onMap }: StripProps) {
  const [isOpen, setOpen] = useState(false)
  const { setNodeRef, isOver } = useDroppable({ id: String(column) })
  const isGuess = source === 'suggested' && field !== null && (suggestion?.confidence ?? 0) < 0.7
  return (
    <div
      ref={setNodeRef}
      className={`border-b border-line py-1.5 ${isOver ? 'bg-lichen outline outline-moss' : isGuess ? 'bg-straw-bg' : ''}`}
    >
      <div className={`${GRID} items-start`}>
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
          className="min-w-0 text-left"
          title={facts.heading}
        >
          <span className="block truncate font-semibold">{facts.heading}</span>
          <span className="text-[12.5px] text-slate underline underline-offset-2">{isOpen ? 'less' : 'more'}</span>
        </button>
        <div>
          <SelectField
            label={`${facts.heading} becomes`}
            hidesLabel
            value={field ?? ''}
            onChange={(event) => onMap(column, (event.target.value || null) as Field | null)}
          >
            <option value="">kept as extra</option>
            {FIELDS.map((one) => (
              <option key={one} value={one}>
                {FIELD[one]}
              </option>
            ))}
          </SelectField>
          <p className={`text-[12.5px] ${isGuess ? 'text-straw-ink' : 'text-soft'}`}>{reasonFor(source, suggestion)}</p>
        </div>
        <Holds facts={facts} />
        <Samples cells={facts.samples.slice(0, 2)} />
      </div>
      {isOpen ? <Details facts={facts} /> : null}
    </div>
  )
}

function reasonFor(source: MappingSource, suggestion: FieldSuggestion | undefined): string {
  if (source === 'set') return 'set by you'
  if (source === 'last-time') return SUGGESTION['as-last-time']
  if (!suggestion) return ''
  const why: SuggestionReason = suggestion.why
  const sure = suggestion.confidence >= 0.9 ? 'sure' : suggestion.confidence >= 0.7 ? 'likely' : 'a guess'
  return why === 'nothing' || why === 'taken' ? SUGGESTION[why] : `${sure}, ${SUGGESTION[why]}`
}

function Samples({ cells }: { cells: readonly string[] }) {
  return (
    <span className="num min-w-0 text-[12.5px] leading-[18px]">
      {cells.map((sample, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two samples may be equal
        <bdi key={n} className="block truncate">
          {shortened(visible(sample), 80)}
        </bdi>
      ))}
    </span>
  )
}

const percent = (share: number): string => (share > 0 && share < 0.01 ? '<1 %' : `${Math.round(share * 100)} %`)

const COLORS: Partial<Record<CellKind, string>> = {
  phone: 'bg-moss',
  email: 'bg-slate',
  person: 'bg-contour',
  company: 'bg-contour',
  date: 'bg-straw',
  web: 'bg-edge',
  profile: 'bg-edge',
}

function Holds({ facts }: { facts: ColumnFacts }) {
  const filled = 1 - facts.blank
  const kinds = (Object.entries(facts.kinds) as [CellKind, number][])
    .filter(([, share]) => share * filled > 0.005)
    .sort((a, b) => b[1] - a[1])
  const told = [
    ...kinds.slice(0, 3).map(([kind, share]) => `${KIND[kind]} ${percent(share * filled)}`),
    ...(facts.blank > 0.005 ? [`blank ${percent(facts.blank)}`] : []),
  ]
  const phones = facts.countries.reduce((sum, { cells }) => sum + cells, 0)
  return (
    <div className="min-w-0">
      <div className="flex h-2 w-full overflow-hidden rounded-[2px] bg-line" aria-hidden="true">
        {kinds.map(([kind, share]) => (
          <span
            key={kind}
            className={`${COLORS[kind] ?? 'bg-contour'} border-r border-paper`}
            style={{ width: `${share * filled * 100}%` }}
          />
        ))}
      </div>
      <p className="pt-0.5 text-[12.5px] leading-4 text-soft">
        {told.join(' · ')}
        {phones > 0 && facts.countries.length > 0
          ? ` · ${facts.countries
              .slice(0, 4)
              .map(({ country, cells }) => `${country} ${percent(cells / phones)}`)
              .join(', ')}`
          : ''}
      </p>
      {facts.damages.slice(0, 2).map(({ damage, cells }) => (
        <p key={damage} className="text-[12.5px] leading-4 text-straw-ink">
          {count(cells)} × {DAMAGE[damage]}
        </p>
      ))}
    </div>
  )
}

function Details({ facts }: { facts: ColumnFacts }) {
  const lines = [
    ...(facts.longest ? [['Longest cell', facts.longest] as const] : []),
    ...(facts.oddest ? [['Oddest cell', facts.oddest] as const] : []),
    ...facts.damages.map(({ damage, example }) => [`For instance, ${DAMAGE[damage]}`, example] as const),
  ]
  return (
    <dl className="grid grid-cols-[220px_minmax(0,1fr)] gap-x-3 gap-y-0.5 py-2 text-[13px]">
      {lines.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-soft">{name}</dt>
          <dd className="num break-all">
            <bdi>{shortened(visible(value), 240)}</bdi>
          </dd>
        </div>
      ))}
    </dl>
  )
}

/** Line breaks and control characters as signs that can be seen. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is shown
const CONTROL = /[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g
const visible = (text: string): string =>
  text.replace(/\r?\n/g, ' ⏎ ').replace(CONTROL, (char) => `‹${char.charCodeAt(0).toString(16)}›`)
