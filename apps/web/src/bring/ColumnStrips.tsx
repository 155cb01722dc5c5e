import { type ColumnFacts, FIELDS, type Field, type FieldSuggestion, type OpenedTable } from '@upper-field/core/table'
import { SelectField } from '../kit/Field'
import { FIELD } from '../words/sentences'

const WHY: Record<FieldSuggestion['why'], string> = {
  heading: 'by its heading',
  cells: 'by what the cells hold',
  'heading-and-cells': 'by heading and cells',
  nothing: '',
}

/** Each column as a strip: what it is called, what it becomes, what it holds. */
export function ColumnStrips({
  opened,
  mapping,
  onMap,
}: {
  opened: OpenedTable
  mapping: readonly (Field | null)[]
  onMap: (column: number, field: Field | null) => void
}) {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <div className="grid grid-cols-[minmax(0,1fr)_170px_minmax(0,1.5fr)_minmax(0,1.7fr)] gap-4 border-b border-edge pb-1.5 text-[13px] font-semibold text-soft">
        <span>Column</span>
        <span>Becomes</span>
        <span>What it holds</span>
        <span>First cells</span>
      </div>
      {opened.columns.map((facts, i) => {
        const suggestion = opened.suggestions[i]
        const field = mapping[i] ?? null
        const isDoubtful = field !== null && field === suggestion?.field && suggestion.confidence < 0.7
        return (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
            key={i}
            className={`grid grid-cols-[minmax(0,1fr)_170px_minmax(0,1.5fr)_minmax(0,1.7fr)] items-center gap-4 border-b border-line py-1.5 ${isDoubtful ? 'bg-straw-bg' : ''}`}
          >
            <span className="truncate font-semibold">{facts.heading}</span>
            <SelectField
              label={`${facts.heading} becomes`}
              hidesLabel
              value={field ?? ''}
              onChange={(event) => onMap(i, (event.target.value || null) as Field | null)}
            >
              <option value="">kept as extra</option>
              {FIELDS.map((one) => (
                <option key={one} value={one}>
                  {FIELD[one]}
                </option>
              ))}
            </SelectField>
            <Holds facts={facts} why={field !== null && field === suggestion?.field ? WHY[suggestion.why] : ''} />
            <span className="num min-w-0 text-[12.5px] leading-4">
              {facts.samples.slice(0, 2).map((sample, n) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: two samples may be equal
                <bdi key={n} className="block truncate">
                  {sample.trim().slice(0, 80)}
                </bdi>
              ))}
            </span>
          </div>
        )
      })}
    </div>
  )
}

const percent = (share: number): string => `${Math.round(share * 100)} %`

function Holds({ facts, why }: { facts: ColumnFacts; why: string }) {
  const filled = 1 - facts.blank
  const kinds = [
    ['numbers', facts.phones * filled, 'bg-moss'],
    ['e-mails', facts.emails * filled, 'bg-slate'],
    ['web addresses', facts.emails > 0.5 ? 0 : facts.webs * filled, 'bg-edge'],
  ] as const
  const known = kinds.filter(([, share]) => share > 0.005)
  const rest = Math.max(0, filled - known.reduce((sum, [, share]) => sum + share, 0))
  const told = [
    ...known.map(([name, share]) => `${name} ${percent(share)}`),
    ...(rest > 0.005 ? [`words ${percent(rest)}`] : []),
    ...(facts.blank > 0.005 ? [`blank ${percent(facts.blank)}`] : []),
  ]
  return (
    <div className="min-w-0">
      <div className="flex h-2 w-full overflow-hidden rounded-[2px] bg-line" aria-hidden="true">
        {known.map(([name, share, color]) => (
          <span key={name} className={color} style={{ width: `${share * 100}%` }} />
        ))}
        <span className="bg-contour" style={{ width: `${rest * 100}%` }} />
      </div>
      <p className="truncate pt-0.5 text-[12.5px] text-soft">
        {told.join(' · ')}
        {why ? ` — ${why}` : ''}
      </p>
    </div>
  )
}
