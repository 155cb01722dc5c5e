import { DELIMITERS, delimiterName, ENCODING_NAMES, ENCODINGS, type Encoding } from '@upper-field/core/table'
import type { FileWishes, OpenedFile } from '@upper-field/files'
import { SelectField } from '../kit/Field'

interface FindingsProps {
  readonly opened: OpenedFile
  readonly wishes: FileWishes
  readonly onWish: (change: Partial<FileWishes>) => void
}

/** What was found in the file, each with its reason, and how to overrule it. */
export function Findings({ opened, wishes, onWish }: FindingsProps) {
  return (
    <section aria-label="What was found" className="flex flex-col gap-2 border-b border-line pb-3">
      <ul className="flex flex-col gap-0.5 text-[13px] leading-[18px]">
        {opened.notes.map(({ code, text }) => (
          <li key={code + text} className={`flex gap-2 ${NEEDS_A_LOOK.has(code) ? 'text-straw-ink' : 'text-soft'}`}>
            <span aria-hidden="true">{NEEDS_A_LOOK.has(code) ? '◆' : '·'}</span>
            {text}
          </li>
        ))}
      </ul>
      <div className="grid max-w-3xl grid-cols-3 gap-3">
        <HeadingsRow {...{ opened, wishes, onWish }} />
        {opened.dialect ? (
          <TextWishes {...{ opened, wishes, onWish }} />
        ) : (
          <SheetWishes {...{ opened, wishes, onWish }} />
        )}
      </div>
    </section>
  )
}

const NEEDS_A_LOOK: ReadonlySet<string> = new Set([
  'named-otherwise',
  'mixed-encodings',
  'no-headings',
  'formulas-without-value',
  'ambiguous-dates',
  'hidden-rows',
  'hidden-sheets',
  'other-sheets',
])

function HeadingsRow({ opened, wishes, onWish }: FindingsProps) {
  const { table } = opened
  const shown = [...table.above, ...table.firstRows.slice(0, 8)]
  const at = table.shape.headings?.last ?? null
  const rows = new Map(shown.map(({ row, cells }) => [row, cells]))
  if (at !== null) rows.set(at, table.headings)
  return (
    <SelectField
      label="Headings"
      value={String(wishes.headings ?? at ?? 'none')}
      onChange={({ target }) => onWish({ headings: target.value === 'none' ? 'none' : Number(target.value) })}
    >
      <option value="none">none</option>
      {[...rows]
        .sort((a, b) => a[0] - b[0])
        .map(([row, cells]) => (
          <option key={row} value={row}>
            row {row}:{' '}
            {cells
              .filter((cell) => cell.trim() !== '')
              .join(' · ')
              .slice(0, 50)}
          </option>
        ))}
    </SelectField>
  )
}

function TextWishes({ opened, onWish }: FindingsProps) {
  const delimiter = opened.dialect?.delimiter ?? ','
  const choices = [...new Set([...DELIMITERS, ':', '~', '^', delimiter])]
  return (
    <>
      <SelectField label="Delimiter" value={delimiter} onChange={({ target }) => onWish({ delimiter: target.value })}>
        {choices.map((one) => (
          <option key={one} value={one}>
            {delimiterName(one)}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="Encoding"
        value={opened.dialect?.encoding}
        onChange={({ target }) => onWish({ encoding: target.value as Encoding })}
      >
        {ENCODINGS.map((encoding) => (
          <option key={encoding} value={encoding}>
            {ENCODING_NAMES[encoding]}
          </option>
        ))}
      </SelectField>
    </>
  )
}

function SheetWishes({ opened, wishes, onWish }: FindingsProps) {
  return (
    <>
      {opened.facts.merges.length > 0 ? (
        <SelectField
          label="Merged cells count"
          value={wishes.merged ?? 'every'}
          onChange={({ target }) => onWish({ merged: target.value as 'every' | 'first' })}
        >
          <option value="every">for every cell they cover</option>
          <option value="first">for the first cell only</option>
        </SelectField>
      ) : null}
      {opened.facts.hiddenRows > 0 || opened.facts.hiddenColumns.length > 0 ? (
        <SelectField
          label="Hidden rows and columns"
          value={wishes.takesHidden ? 'taken' : 'left'}
          onChange={({ target }) => onWish({ takesHidden: target.value === 'taken' })}
        >
          <option value="left">are left out</option>
          <option value="taken">are taken too</option>
        </SelectField>
      ) : null}
    </>
  )
}
