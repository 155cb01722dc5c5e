import { isLeftOut, layoutKey } from '@upper-field/core/table'
import type { FileWishes, OpenedFile } from '@upper-field/files'
import { useEffect, useState } from 'react'
import { useReadLayoutQuery, useReadSameFilesQuery } from '../api'
import { Button } from '../kit/Button'
import { Loading, Notice } from '../kit/Notice'
import { bytes, date, plural } from '../words/format'
import { BATCH_PROBLEM, FORMAT } from '../words/sentences'
import { ColumnStrips } from './ColumnStrips'
import { Findings } from './Findings'
import { LiveRows } from './LiveRows'
import { SourceForm } from './SourceForm'
import type { BenchFile, FileState } from './useBenchFiles'
import { useMapping } from './useMapping'
import { useSpecimen } from './useSpecimen'

export interface SpecimenProps {
  readonly item: BenchFile
  readonly listId: string
  readonly isShown: boolean
  readonly onState: (state: FileState) => void
  readonly onSent: (batchId: string) => void
  readonly onRemove: () => void
  /** Puts another sheet of the same workbook on the bench, to be a batch of its own. */
  readonly onSheet: (sheet: string) => void
}

/** A file on the bench: its shape, what its columns hold and become, where it came from. Nothing is sent yet. */
export function Specimen({ item, listId, isShown, onState, onSent, onRemove, onSheet }: SpecimenProps) {
  const [wishes, setWishes] = useState<FileWishes>(item.sheet === null ? {} : { sheet: item.sheet })
  const [chosenCountry, setCountry] = useState<string | null | undefined>(undefined)
  const [lastCountry, setLastCountry] = useState<string | null>(null)
  const settled = chosenCountry === undefined ? (lastCountry ?? undefined) : chosenCountry
  const { head, rows, count, total, read } = useSpecimen(item.file, {
    ...wishes,
    ...(settled === undefined ? {} : { country: settled }),
  })
  const opening = head?.opening
  const opened = opening?.status === 'opened' ? opening : null
  const country = settled === undefined ? (opened?.table.country.suggested ?? null) : settled
  const key = opened ? layoutKey(opened.table.headings) : null
  const { currentData: known } = useReadLayoutQuery({ params: { key: key ?? '' } }, { skip: !key })
  const { data: same = [] } = useReadSameFilesQuery(
    { params: { fingerprint: head?.fingerprint ?? '' } },
    { skip: !head || item.sheet !== null },
  )
  const layout = (key && known?.layout) || null
  // A layout that is known is dialled from where it was last time.
  useEffect(() => setLastCountry(layout?.defaultCountry ?? null), [layout])
  const { mapping, isKnown, assign, sourceOf } = useMapping(opened?.table ?? null, layout)
  const mappingText = JSON.stringify(mapping)
  useEffect(() => {
    if (opened) read(JSON.parse(mappingText), country)
  }, [opened, mappingText, country, read])
  const state: FileState = opening ? (opened ? 'ready' : 'refused') : 'looking'
  // biome-ignore lint/correctness/useExhaustiveDependencies: told once for each state
  useEffect(() => onState(state), [state])
  if (!isShown && state !== 'ready') return null
  if (!opening) return <Loading what={item.file.name} />
  if (!opened) {
    return (
      <main className="flex max-w-xl flex-col items-start gap-4 p-6">
        <h1>{item.file.name}</h1>
        <Notice tone="bad">{opening.status === 'refused' ? BATCH_PROBLEM[opening.problem] : ''}</Notice>
        <Button onClick={onRemove}>Put it aside</Button>
      </main>
    )
  }
  return (
    <div className={isShown ? 'flex h-full min-h-0 flex-1' : 'hidden'}>
      <main className="min-w-0 flex-1 overflow-y-auto px-5 py-3">
        <Title item={item} opened={opened} mapped={mapping.filter((field) => field !== null).length} />
        {same.length > 0 ? (
          <div className="pb-2">
            <Notice tone="look">
              This very file was brought in before:{' '}
              {same.map((one) => `“${one.name}” in ${one.listName}, ${date(one.createdAt)}`).join('; ')}. Bring it in
              again only if you mean to.
            </Notice>
          </div>
        ) : null}
        {isKnown && layout ? (
          <p className="pb-2 text-[13px] text-slate">
            This layout is known: mapped as “{layout.batchName}” was on {date(layout.usedAt)}.
          </p>
        ) : null}
        <Sheets opened={opened} onSheet={(sheet) => setWishes({ sheet })} onTake={onSheet} />
        <Findings opened={opened} wishes={wishes} onWish={(change) => setWishes({ ...wishes, ...change })} />
        <h2 className="pt-3 pb-1 text-[15px]">Columns</h2>
        <ColumnStrips table={opened.table} mapping={mapping} sourceOf={sourceOf} onMap={assign} />
        <LiveRows rows={rows} />
      </main>
      <SourceForm
        {...{
          item,
          listId,
          opened,
          wishes,
          mapping,
          country,
          setCountry,
          count,
          total,
          layout: isKnown ? layout : null,
          onState,
          onSent,
          onRemove,
        }}
      />
    </div>
  )
}

function Title({ item, opened, mapped }: { item: BenchFile; opened: OpenedFile; mapped: number }) {
  const { table } = opened
  const columns = table.columns.filter((facts) => !isLeftOut(facts)).length
  const headings = table.shape.headings
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 pb-2">
      <h1>{item.file.name}</h1>
      <p className="text-soft">
        {FORMAT[opened.format]} · {bytes(item.file.size)} ·{' '}
        {headings
          ? `headings in row ${headings.first === headings.last ? headings.last : `${headings.first}–${headings.last}`}`
          : 'no headings'}{' '}
        · {mapped} of {plural(columns, 'column')} understood
      </p>
    </div>
  )
}

function Sheets({
  opened,
  onSheet,
  onTake,
}: {
  opened: OpenedFile
  onSheet: (sheet: string) => void
  onTake: (sheet: string) => void
}) {
  if (opened.sheets.length < 2) return null
  return (
    <fieldset className="flex flex-wrap items-center gap-2 pb-3">
      <legend className="sr-only">Sheets</legend>
      {opened.sheets.map(({ name, hidden }) => (
        <span key={name} className="inline-flex">
          <button
            type="button"
            aria-pressed={name === opened.sheet}
            onClick={() => onSheet(name)}
            className={`rounded-small border px-2 py-0.5 ${name === opened.sheet ? 'border-moss bg-lichen font-semibold' : 'border-edge hover:bg-lichen'}`}
          >
            {name}
            {hidden ? <span className="text-straw-ink"> (hidden)</span> : null}
          </button>
          {name === opened.sheet ? null : (
            <button
              type="button"
              onClick={() => onTake(name)}
              aria-label={`Take ${name} as a batch of its own too`}
              title={`Take ${name} as a batch of its own too`}
              className="rounded-small border border-edge px-1.5 hover:bg-lichen"
            >
              +
            </button>
          )}
        </span>
      ))}
    </fieldset>
  )
}
