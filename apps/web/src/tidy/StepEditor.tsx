import type { TidyState } from '@upper-field/contract'
import { BLANK_WORDS, DATE_ORDERS, type Step } from '@upper-field/core/tidy'
import { useState } from 'react'
import { TextButton } from '../kit/Button'
import { SelectField, TextField } from '../kit/Field'
import { columnTitle, STEP } from '../words/tidying'

interface Editing<K extends Step['kind']> {
  readonly step: Extract<Step, { kind: K }>
  readonly columns: TidyState['columns']
  onChange(step: Step): void
}

/** The open step: on or off, its options, and the way out of the routine. */
export function StepEditor({
  step,
  columns,
  onChange,
  onRemove,
}: {
  step: Step
  columns: TidyState['columns']
  onChange: (step: Step) => void
  onRemove: () => void
}) {
  return (
    <section aria-label={`Step: ${STEP[step.kind].title}`} className="flex flex-col gap-3">
      <div>
        <h2>{STEP[step.kind].title}</h2>
        <p className="text-soft">{STEP[step.kind].does}</p>
      </div>
      <Tick label="Switched on" isOn={step.isOn} onChange={(isOn) => onChange({ ...step, isOn } as Step)} />
      <Options step={step} columns={columns} onChange={onChange} />
      <TextButton className="self-start" onClick={onRemove}>
        Take this step out
      </TextButton>
    </section>
  )
}

function Options({
  step,
  columns,
  onChange,
}: {
  step: Step
  columns: TidyState['columns']
  onChange: (step: Step) => void
}) {
  switch (step.kind) {
    case 'names':
      return <NameOptions step={step} columns={columns} onChange={onChange} />
    case 'company':
      return <CompanyOptions step={step} columns={columns} onChange={onChange} />
    case 'blanks':
      return <BlankOptions step={step} columns={columns} onChange={onChange} />
    case 'dates':
      return <DateOptions step={step} columns={columns} onChange={onChange} />
    case 'replace':
      return <ReplaceOptions step={step} columns={columns} onChange={onChange} />
    case 'derive':
      return <DeriveOptions step={step} columns={columns} onChange={onChange} />
    case 'columns':
      return <ColumnOptions step={step} columns={columns} onChange={onChange} />
    default:
      return null
  }
}

export function Tick({ label, isOn, onChange }: { label: string; isOn: boolean; onChange: (isOn: boolean) => void }) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="h-4 w-4 accent-moss"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  )
}

function NameOptions({ step, onChange }: Editing<'names'>) {
  const set = (options: Partial<typeof step.options>) => onChange({ ...step, options: { ...step.options, ...options } })
  return (
    <>
      <Tick
        label="Split full names into given and family name"
        isOn={step.options.split}
        onChange={(split) => set({ split })}
      />
      <Tick label="Mend capitals" isOn={step.options.mendsCase} onChange={(mendsCase) => set({ mendsCase })} />
      <Tick
        label="Take out titles and letters behind names"
        isOn={step.options.takesTitles}
        onChange={(takesTitles) => set({ takesTitles })}
      />
      <Tick
        label="Take out pictures and ornaments"
        isOn={step.options.takesDecorations}
        onChange={(takesDecorations) => set({ takesDecorations })}
      />
    </>
  )
}

function CompanyOptions({ step, onChange }: Editing<'company'>) {
  const set = (options: Partial<typeof step.options>) => onChange({ ...step, options: { ...step.options, ...options } })
  return (
    <>
      <Tick
        label="Take the legal form off"
        isOn={step.options.takesLegalForm}
        onChange={(takesLegalForm) => set({ takesLegalForm })}
      />
      <Tick label="Mend capitals" isOn={step.options.mendsCase} onChange={(mendsCase) => set({ mendsCase })} />
    </>
  )
}

function BlankOptions({ step, onChange }: Editing<'blanks'>) {
  const [text, setText] = useState(step.options.words.join('\n'))
  const set = (next: string) => {
    setText(next)
    onChange({
      ...step,
      options: {
        words: next
          .split('\n')
          .map((word) => word.trim())
          .filter(Boolean),
      },
    })
  }
  return (
    <div>
      <label htmlFor="blank-words" className="block pb-1 font-semibold">
        Words, one a line
      </label>
      <textarea
        id="blank-words"
        rows={8}
        value={text}
        onChange={(event) => set(event.target.value)}
        className="num w-full rounded-small border border-edge bg-surface px-2 py-1 text-[13px]"
      />
      <TextButton onClick={() => set(BLANK_WORDS.join('\n'))}>The usual words</TextButton>
    </div>
  )
}

const ORDER = { 'day-first': 'Day, month, year', 'month-first': 'Month, day, year', 'year-first': 'Year, month, day' }

function DateOptions({ step, columns, onChange }: Editing<'dates'>) {
  const set = (options: Partial<typeof step.options>) => onChange({ ...step, options: { ...step.options, ...options } })
  return (
    <>
      <ColumnTicks columns={columns} chosen={step.options.columns} onChange={(chosen) => set({ columns: chosen })} />
      <SelectField
        label="Where it could be both"
        value={step.options.order}
        onChange={(event) => set({ order: event.target.value as (typeof DATE_ORDERS)[number] })}
      >
        {DATE_ORDERS.map((order) => (
          <option key={order} value={order}>
            {ORDER[order]}
          </option>
        ))}
      </SelectField>
    </>
  )
}

function ReplaceOptions({ step, columns, onChange }: Editing<'replace'>) {
  const set = (options: Partial<typeof step.options>) => onChange({ ...step, options: { ...step.options, ...options } })
  return (
    <>
      <ColumnTicks columns={columns} chosen={step.options.columns} onChange={(chosen) => set({ columns: chosen })} />
      <TextField
        label="Find"
        value={step.options.find}
        maxLength={500}
        onChange={(event) => set({ find: event.target.value })}
      />
      <TextField
        label="Put in its place"
        value={step.options.with}
        maxLength={500}
        onChange={(event) => set({ with: event.target.value })}
        hint={step.options.isPattern ? '$1 puts in what the first brackets found.' : 'Left blank, it is taken out.'}
      />
      <Tick
        label="Find by a pattern (regular expression)"
        isOn={step.options.isPattern}
        onChange={(isPattern) => set({ isPattern })}
      />
      <Tick
        label="Mind capitals"
        isOn={step.options.minds === 'case'}
        onChange={(isOn) => set({ minds: isOn ? 'case' : 'nothing' })}
      />
    </>
  )
}

function DeriveOptions({ step, onChange }: Editing<'derive'>) {
  const set = (options: Partial<typeof step.options>) => onChange({ ...step, options: { ...step.options, ...options } })
  return (
    <>
      <TextField
        label="Name of the new column"
        value={step.options.column}
        maxLength={200}
        onChange={(event) => set({ column: event.target.value })}
      />
      <div>
        <label htmlFor="template" className="block pb-1 font-semibold">
          Template
        </label>
        <textarea
          id="template"
          rows={4}
          maxLength={2000}
          value={step.options.template}
          placeholder={'Hello {{ full_name }}, from {{ company }}'}
          onChange={(event) => set({ template: event.target.value })}
          className="num w-full rounded-small border border-edge bg-surface px-2 py-1 text-[13px] placeholder:text-soft"
        />
        <p className="pt-1 text-[13px] text-soft">In Liquid. Columns by their names, with _ for spaces and dashes.</p>
      </div>
    </>
  )
}

function ColumnOptions({ step, columns, onChange }: Editing<'columns'>) {
  const extras = columns.filter(({ field }) => field === null)
  const { hidden, renamed } = step.options
  const set = (options: Partial<typeof step.options>) => onChange({ ...step, options: { ...step.options, ...options } })
  const rename = (name: string, to: string) => {
    const { [name]: _, ...others } = renamed
    set({ renamed: to.trim() === '' || to === name ? others : { ...others, [name]: to } })
  }
  return (
    <ul className="flex flex-col gap-2">
      {extras.map(({ name }) => (
        <li key={name} className="flex items-center gap-2">
          <input
            type="checkbox"
            aria-label={`Keep ${name}`}
            className="h-4 w-4 shrink-0 accent-moss"
            checked={!hidden.includes(name)}
            onChange={(event) =>
              set({ hidden: event.target.checked ? hidden.filter((one) => one !== name) : [...hidden, name] })
            }
          />
          <input
            aria-label={`Name for ${name}`}
            defaultValue={renamed[name] ?? name}
            onBlur={(event) => rename(name, event.target.value)}
            className="min-h-7 w-full rounded-small border border-edge bg-surface px-2"
          />
        </li>
      ))}
    </ul>
  )
}

function ColumnTicks({
  columns,
  chosen,
  onChange,
}: {
  columns: TidyState['columns']
  chosen: readonly string[]
  onChange: (chosen: string[]) => void
}) {
  const gone = chosen.filter((name) => !columns.some((column) => column.name === name))
  return (
    <fieldset>
      <legend className="pb-1 font-semibold">In these columns</legend>
      <div className="max-h-40 overflow-y-auto rounded-small border border-line px-2 py-1">
        {[...columns.map(({ name }) => name), ...gone].map((name) => (
          <Tick
            key={name}
            label={gone.includes(name) ? `${name} (gone)` : columnTitle(name)}
            isOn={chosen.includes(name)}
            onChange={(isOn) => onChange(isOn ? [...chosen, name] : chosen.filter((one) => one !== name))}
          />
        ))}
      </div>
    </fieldset>
  )
}
