import type { FileLayout } from '@upper-field/contract'
import {
  DELIMITERS,
  FILE_COLUMNS,
  FILE_KINDS,
  type FileKind,
  NUMBER_FORMS,
  type NumberForm,
} from '@upper-field/core/send'
import { ArrowDown, ArrowUp, X } from 'lucide-react'
import { useState } from 'react'
import { problemText, useKeepFileLayoutMutation } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField, TextField } from '../kit/Field'
import { IconButton } from '../kit/IconButton'
import { Notice } from '../kit/Notice'
import { ALL_COLUMNS, mistakeIn, toggleColumn } from './layoutDraft'

interface LayoutDialogProps {
  readonly begun: FileLayout
  /** Under which it is kept; empty for the usual one. */
  readonly name: string
  /** Of the layouts that are kept. */
  readonly names: readonly string[]
  readonly isOff: boolean
  /** Kinds of file that are no choice here. */
  readonly without?: readonly FileKind[]
  /** Why the file could not be begun. */
  readonly problem: unknown
  readonly onKept: (name: string) => void
  readonly onWrite: (layout: FileLayout) => Promise<void>
  readonly onClose: () => void
}

const KIND: Readonly<Record<FileKind, string>> = {
  csv: 'table (CSV)',
  xlsx: 'workbook (XLSX)',
  ndjson: 'JSON lines',
  vcard: 'cards (vCard 4)',
}
const DELIMITER: Readonly<Record<(typeof DELIMITERS)[number], string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'bar',
}
const NUMBERS: Readonly<Record<NumberForm, string>> = {
  e164: '+447911204481',
  international: '+44 7911 204481',
  national: '07911 204481',
  digits: '447911204481',
}

/** Which columns a file for people has, in which order, under which headings, and in which form. */
export function LayoutDialog({
  begun,
  name,
  names,
  isOff,
  without = [],
  problem,
  onKept,
  onWrite,
  onClose,
}: LayoutDialogProps) {
  const [layout, setLayout] = useState(begun)
  const [called, setCalled] = useState(name)
  const [keep, keeping] = useKeepFileLayoutMutation()
  const mistake = mistakeIn(layout)
  const change = (changed: Partial<FileLayout>) => setLayout({ ...layout, ...changed })
  const submit = async () => {
    const { error } = await keep({ body: { name: called.trim(), layout } })
    if (!error) onKept(called.trim())
  }
  return (
    <Dialog title="Columns and form of the file" isOpen isWide onClose={onClose}>
      <div className="flex flex-col gap-3">
        <div className="grid grid-cols-3 gap-3">
          <SelectField
            label="Kind of file"
            value={layout.kind}
            onChange={(event) => change({ kind: event.target.value as FileKind })}
          >
            {FILE_KINDS.filter((kind) => !without.includes(kind)).map((kind) => (
              <option key={kind} value={kind}>
                {KIND[kind]}
              </option>
            ))}
          </SelectField>
          <SelectField
            label="Numbers as"
            value={layout.numberForm}
            disabled={layout.kind === 'vcard'}
            onChange={(event) => change({ numberForm: event.target.value as NumberForm })}
          >
            {NUMBER_FORMS.map((form) => (
              <option key={form} value={form}>
                {NUMBERS[form]}
              </option>
            ))}
          </SelectField>
          <SelectField
            label="Delimiter"
            value={layout.delimiter}
            disabled={layout.kind !== 'csv'}
            onChange={(event) => change({ delimiter: event.target.value as FileLayout['delimiter'] })}
          >
            {DELIMITERS.map((one) => (
              <option key={one} value={one}>
                {DELIMITER[one]}
              </option>
            ))}
          </SelectField>
        </div>
        <div className="flex flex-wrap gap-x-5 gap-y-2">
          {layout.kind === 'xlsx' ? (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-moss"
                checked={layout.sheets === 'by-lane'}
                onChange={(event) => change({ sheets: event.target.checked ? 'by-lane' : 'one' })}
              />
              A sheet for each lane
            </label>
          ) : null}
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-moss"
              checked={layout.hasBom}
              disabled={layout.kind !== 'csv'}
              onChange={(event) => change({ hasBom: event.target.checked })}
            />
            With a byte order mark
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-moss"
              checked={layout.hasExtras}
              disabled={layout.kind === 'vcard'}
              onChange={(event) => change({ hasExtras: event.target.checked })}
            />
            With the columns that became no field
          </label>
        </div>
        {layout.kind === 'vcard' ? (
          <p className="text-soft">A card holds everything that is known and has a place in it.</p>
        ) : (
          <Columns layout={layout} onChange={setLayout} />
        )}
        {mistake ? <p className="text-[13px] text-beet">{mistake}</p> : null}
        {keeping.error || problem ? <Notice tone="bad">{problemText(keeping.error ?? problem)}</Notice> : null}
        <div className="flex items-end justify-between gap-3 border-t border-line pt-3">
          <div className="flex items-end gap-2">
            <TextField
              label="Keep this layout as"
              value={called}
              autoComplete="off"
              onChange={(event) => setCalled(event.target.value)}
            />
            <Button
              disabled={called.trim() === '' || mistake !== null || keeping.isLoading}
              onClick={() => void submit()}
            >
              {names.includes(called.trim()) ? 'Replace' : 'Keep'}
            </Button>
          </div>
          <div className="flex gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button look="main" disabled={isOff || mistake !== null} onClick={() => void onWrite(layout)}>
              Write the file
            </Button>
          </div>
        </div>
      </div>
    </Dialog>
  )
}

function Columns({ layout, onChange }: { layout: FileLayout; onChange: (layout: FileLayout) => void }) {
  const { columns } = layout
  const move = (at: number, by: number) => {
    const next = [...columns]
    const [moved] = next.splice(at, 1)
    if (moved) next.splice(at + by, 0, moved)
    onChange({ ...layout, columns: next })
  }
  const name = (at: number, heading: string) =>
    onChange({ ...layout, columns: columns.map((one, i) => (i === at ? { ...one, heading } : one)) })
  const left = ALL_COLUMNS.filter((column) => !columns.some((one) => one.column === column))
  return (
    <>
      <ol aria-label="Columns of the file" className="grid max-h-[34vh] grid-cols-2 gap-x-4 gap-y-1 overflow-y-auto">
        {columns.map(({ column, heading }, at) => (
          <li key={column} className="flex items-center gap-1">
            <span className="num w-6 text-right text-[13px] text-soft">{at + 1}</span>
            <input
              aria-label={`Heading of ${FILE_COLUMNS[column]}`}
              className="min-h-7 min-w-0 flex-1 rounded-small border border-edge bg-surface px-2"
              value={heading}
              onChange={(event) => name(at, event.target.value)}
            />
            <IconButton label={`Put ${FILE_COLUMNS[column]} earlier`} isOff={at === 0} onClick={() => move(at, -1)}>
              <ArrowUp size={15} aria-hidden="true" />
            </IconButton>
            <IconButton
              label={`Put ${FILE_COLUMNS[column]} later`}
              isOff={at === columns.length - 1}
              onClick={() => move(at, 1)}
            >
              <ArrowDown size={15} aria-hidden="true" />
            </IconButton>
            <IconButton
              label={`Leave ${FILE_COLUMNS[column]} out`}
              isOff={columns.length === 1}
              onClick={() => onChange(toggleColumn(layout, column))}
            >
              <X size={15} aria-hidden="true" />
            </IconButton>
          </li>
        ))}
      </ol>
      {left.length > 0 ? (
        <p className="flex flex-wrap gap-1.5">
          {left.map((column) => (
            <button
              key={column}
              type="button"
              className="rounded-small border border-edge px-2 py-0.5 text-[13px] hover:bg-lichen"
              onClick={() => onChange(toggleColumn(layout, column))}
            >
              + {FILE_COLUMNS[column]}
            </button>
          ))}
        </p>
      ) : null}
    </>
  )
}
