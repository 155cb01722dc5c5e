import { addressOf, type Batch, type HeldRow } from '@upper-field/contract'
import { AS_THEY_STAND } from '@upper-field/core/table'
import { useState } from 'react'
import { problemText, useLetInHeldMutation, useMendHeldMutation, useReadHeldQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { ReadState, Refused } from '../shell/Answer'
import { count, plural, shortened } from '../words/format'
import { FIELD, HELD } from '../words/sentences'

/** The rows of a batch that could not be read: looked at as they stood, mended in place and let in. */
export function HeldRows({ batch }: { batch: Batch }) {
  const asked = useReadHeldQuery({ params: { batchId: batch.id } })
  const { data: rows = [] } = asked
  const [open, setOpen] = useState<number | null>(null)
  const [letIn, letting] = useLetInHeldMutation()
  const alike = AS_THEY_STAND.map((reason) => [reason, rows.filter((row) => row.reason === reason).length] as const)
  /** More are held than are shown, and nobody has counted their reasons. */
  const isPart = rows.length > 0 && rows.length < batch.held
  return (
    <section id="held" aria-label="Held rows" className="pt-5">
      <div className="flex items-baseline justify-between pb-1">
        <h2 className="text-[15px]">{plural(batch.held, 'row')} held</h2>
        <a
          href={addressOf('downloadHeld', { params: { batchId: batch.id } })}
          className="text-slate underline"
          download
        >
          Download them as CSV
        </a>
      </div>
      <p className="pb-2 text-soft">
        Nothing of them is lost: here they are as they stood. Mend one and let it in, or download them, mend them
        elsewhere and bring that file in.
        {isPart ? ` The first ${count(rows.length)} are shown; the file holds all.` : ''}
      </p>
      {alike.map(([reason, n]) =>
        n > 1 ? (
          <p key={reason} className="pb-1">
            {HELD[reason]}{' '}
            <TextButton onClick={() => void letIn({ params: { batchId: batch.id }, body: { reason } })}>
              {letInText(reason, isPart ? null : n)}
            </TextButton>
          </p>
        ) : null,
      )}
      <ReadState of={asked} what="the held rows" />
      <Refused by={[letting]} />
      <table className="w-full table-fixed">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="w-16 py-1">Row</th>
            <th className="w-[32%]">Why</th>
            <th>As it stood</th>
            <th className="w-20" />
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <HeldLine
              key={row.row}
              batch={batch}
              row={row}
              isOpen={open === row.row}
              onOpen={(isOpen) => setOpen(isOpen ? row.row : null)}
            />
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** @param n null where it is not known how many there are */
function letInText(reason: HeldRow['reason'], n: number | null): string {
  if (reason === 'too-few-cells') return `Let ${n === null ? 'all such' : count(n)} rows in, blank at the end`
  return n === null ? 'Let all such rows in' : `Let these ${count(n)} rows in`
}

interface HeldLineProps {
  readonly batch: Batch
  readonly row: HeldRow
  readonly isOpen: boolean
  readonly onOpen: (isOpen: boolean) => void
}

function HeldLine({ batch, row, isOpen, onOpen }: HeldLineProps) {
  return (
    <>
      <tr className="border-b border-line align-top">
        <td className="num py-1.5">{count(row.row)}</td>
        <td className="py-1.5 pr-3">{HELD[row.reason]}</td>
        <td className="num break-all py-1.5 text-[13px]">
          <bdi>{shortened(row.text, 240)}</bdi>
        </td>
        <td className="py-1.5 text-right">
          <TextButton aria-expanded={isOpen} onClick={() => onOpen(!isOpen)} aria-label={`Mend row ${row.row}`}>
            {isOpen ? 'Close' : 'Mend'}
          </TextButton>
        </td>
      </tr>
      {isOpen ? (
        <tr className="border-b border-line bg-surface">
          <td colSpan={4} className="p-3">
            {row.isCut ? (
              <p>
                A cell of this row is too long to be mended here: download the rows, mend it there and bring that file
                in.
              </p>
            ) : (
              <MendForm batch={batch} row={row} onDone={() => onOpen(false)} />
            )}
          </td>
        </tr>
      ) : null}
    </>
  )
}

/** A cell for each column, started from what can be told of the row. Enter lets it in. */
function MendForm({ batch, row, onDone }: { batch: Batch; row: HeldRow; onDone: () => void }) {
  const width = batch.headings.length
  const [cells, setCells] = useState<readonly string[]>(() =>
    Array.from({ length: width }, (_, i) => row.cells[i] ?? ''),
  )
  const [mend, { error, isLoading }] = useMendHeldMutation()
  const over = row.cells.slice(width)
  const letIn = async () => {
    const result = await mend({ params: { batchId: batch.id, row: row.row }, body: { cells: [...cells] } })
    if (result.data) onDone()
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        void letIn()
      }}
    >
      {over.length > 0 ? (
        <p className="pb-2 text-[13px] text-straw-ink">
          {plural(over.length, 'cell')} too many: {over.map((cell) => `“${shortened(cell, 60)}”`).join(', ')}
        </p>
      ) : null}
      <div className="grid grid-cols-4 gap-2">
        {batch.headings.map((heading, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
          <label key={i} className="text-[13px]">
            <span className="block truncate text-soft">
              {heading || `Column ${i + 1}`}
              {batch.mapping[i] ? ` → ${FIELD[batch.mapping[i]]}` : ''}
            </span>
            <input
              // biome-ignore lint/a11y/noAutofocus: the operator has just asked to mend this row
              autoFocus={i === 0}
              value={cells[i] ?? ''}
              onChange={({ target }) => setCells(cells.map((cell, n) => (n === i ? target.value : cell)))}
              className="num w-full rounded-small border border-edge bg-paper px-2 py-1"
            />
          </label>
        ))}
      </div>
      <div className="flex items-center gap-3 pt-3">
        <Button type="submit" look="main" disabled={isLoading}>
          Let row {count(row.row)} in
        </Button>
        <Button onClick={onDone}>Leave it held</Button>
        {error ? <span className="text-beet">{problemText(error)}</span> : null}
      </div>
    </form>
  )
}
