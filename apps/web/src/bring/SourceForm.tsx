import { type Batch, LAWFUL_BASES, type Layout, SOURCE_KINDS } from '@upper-field/contract'
import { canBeReached, type Mapping } from '@upper-field/core/table'
import { type FileWishes, type OpenedFile, settingsOfFile } from '@upper-field/files'
import { useRef, useState } from 'react'
import { problemText, useMakeBatchMutation } from '../api'
import { Button } from '../kit/Button'
import { SelectField, TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { bytes, plural } from '../words/format'
import { BASIS, SOURCE } from '../words/sentences'
import { CountryChoice } from './CountryChoice'
import type { NumberCount } from './headWorker'
import { sendFile } from './sendFile'
import type { BenchFile, FileState } from './useBenchFiles'

interface SourceFormProps {
  readonly item: BenchFile
  readonly listId: string
  readonly opened: OpenedFile
  readonly wishes: FileWishes
  readonly mapping: Mapping
  readonly country: string | null
  readonly setCountry: (country: string | null) => void
  /** What of the first rows' numbers will be read; null while that is found out. */
  readonly count: NumberCount | null
  /** Rows of the whole file that can be read; null where they were not counted. */
  readonly total: number | null
  /** How this layout was brought in last time, where it is known. */
  readonly layout: Layout | null
  readonly onState: (state: FileState) => void
  readonly onSent: (batchId: string) => void
  readonly onRemove: () => void
}

type Sending =
  | { readonly status: 'idle' }
  | { readonly status: 'sending'; readonly share: number; readonly isBroken?: boolean }
  | { readonly status: 'failed'; readonly sentence: string }

interface SourceFacts {
  readonly name: string
  readonly sourceKind: Batch['sourceKind'] | null
  readonly lawfulBasis: Batch['lawfulBasis'] | null
  readonly gatheredOn: string
  readonly price: string
  readonly note: string
}

/** Where a file came from, and the act of bringing it in. */
export function SourceForm(props: SourceFormProps) {
  const { item, opened, mapping, country, setCountry, count, total, layout, onRemove } = props
  const [facts, setFacts] = useState<SourceFacts>({
    name: item.file.name.replace(/\.[a-z]+$/i, '') + (item.sheet === null ? '' : `, ${item.sheet}`),
    sourceKind: null,
    lawfulBasis: null,
    gatheredOn: '',
    price: '',
    note: '',
  })
  const set = (change: Partial<SourceFacts>) => setFacts({ ...facts, ...change })
  const sourceKind = facts.sourceKind ?? layout?.sourceKind ?? 'other'
  const lawfulBasis = facts.lawfulBasis ?? layout?.lawfulBasis ?? 'not-stated'
  const { sending, start, stop } = useSending(props, { ...facts, sourceKind, lawfulBasis })
  // Of what was not bought no price is asked, and none is wrong.
  const isPriceRight = sourceKind !== 'bought' || priceOf(facts.price) !== undefined
  const reaches = canBeReached(mapping)
  const isDirect = mapping.some((field) => field === 'number' || field === 'email')
  return (
    <aside
      aria-label="Where it came from"
      className="flex h-full w-[296px] shrink-0 flex-col border-l border-line bg-surface"
    >
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto px-4 py-3">
        <h2>Where it came from</h2>
        <TextField
          label="Name of the batch"
          value={facts.name}
          onChange={({ target }) => set({ name: target.value })}
          maxLength={200}
        />
        <SelectField
          label="Source"
          value={sourceKind}
          onChange={({ target }) => set({ sourceKind: target.value as Batch['sourceKind'] })}
        >
          {SOURCE_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {SOURCE[kind]}
            </option>
          ))}
        </SelectField>
        {sourceKind === 'bought' ? (
          <TextField
            label="Price paid, in euros"
            inputMode="decimal"
            value={facts.price}
            onChange={({ target }) => set({ price: target.value })}
            error={isPriceRight ? undefined : 'An amount such as 480 or 480.50'}
          />
        ) : null}
        <SelectField
          label="Lawful basis"
          value={lawfulBasis}
          onChange={({ target }) => set({ lawfulBasis: target.value as Batch['lawfulBasis'] })}
        >
          {LAWFUL_BASES.map((basis) => (
            <option key={basis} value={basis}>
              {BASIS[basis]}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Gathered on"
          type="date"
          value={facts.gatheredOn}
          onChange={({ target }) => set({ gatheredOn: target.value })}
        />

        <CountryChoice
          inferred={opened.table.country}
          country={country}
          onChange={setCountry}
          count={count}
          isKnown={layout !== null}
        />
        <TextField
          label="Note"
          value={facts.note}
          onChange={({ target }) => set({ note: target.value })}
          maxLength={2000}
        />
        {isDirect ? null : (
          <Notice tone="look">
            {reaches
              ? 'No column becomes a number or an e-mail: these contacts can be looked for in Fill, not reached yet.'
              : 'No column becomes a number or an e-mail. Choose one, or nobody in this file can be reached.'}
          </Notice>
        )}
        <p className="text-[13px] text-soft">
          {opened.table.headings.length > mapping.filter((field) => field !== null).length
            ? 'Columns kept as extra stay with the contact: searchable, and in files for people. '
            : ''}
          Looked at on this machine only so far. Rows are kept as they stood, whatever is done to them later.
        </p>
      </div>
      {/* What is counted of the file comes in above while somebody reaches for the button: it stays where it is. */}
      <div className="flex flex-col gap-3 border-t border-line px-4 py-3">
        {sending.status === 'failed' ? <Notice tone="bad">{sending.sentence}</Notice> : null}
        {sending.status === 'sending' ? (
          <>
            <div className="flex items-center gap-3">
              <progress aria-label="Sending the file" max={1} value={sending.share} className="bar h-2 flex-1" />
              <Button onClick={stop}>Stop</Button>
            </div>
            {sending.isBroken ? (
              <Notice tone="look">The connection is away. The rest is sent as soon as it is back.</Notice>
            ) : null}
          </>
        ) : (
          <div className="flex gap-2">
            <Button look="main" className="flex-1" disabled={!reaches || !isPriceRight} onClick={() => void start()}>
              {total === null ? `Bring in ${bytes(item.file.size)}` : `Bring in ${plural(total, 'row')}`}
            </Button>
            <Button onClick={onRemove}>Cancel</Button>
          </div>
        )}
      </div>
    </aside>
  )
}

/** Millionths of a euro; null for nothing, undefined for what is no amount. */
function priceOf(text: string): number | null | undefined {
  const plain = text.trim().replace(',', '.')
  if (plain === '') return null
  return /^\d{1,9}(?:\.\d{1,2})?$/.test(plain) ? Math.round(Number(plain) * 1_000_000) : undefined
}

interface SettledFacts extends SourceFacts {
  readonly sourceKind: Batch['sourceKind']
  readonly lawfulBasis: Batch['lawfulBasis']
}

function useSending(
  { item, listId, opened, wishes, mapping, country, onState, onSent }: SourceFormProps,
  { name, sourceKind, lawfulBasis, gatheredOn, price, note }: SettledFacts,
) {
  const [makeBatch] = useMakeBatchMutation()
  const [sending, setSending] = useState<Sending>({ status: 'idle' })
  const stopper = useRef(new AbortController())
  const fail = (sentence: string) => {
    onState('ready')
    setSending({ status: 'failed', sentence })
  }
  const start = async () => {
    stopper.current = new AbortController()
    setSending({ status: 'sending', share: 0 })
    onState('sending')
    const settings = settingsOfFile(opened, wishes)
    const made = await makeBatch({
      params: { listId },
      body: {
        ...settings,
        headings: [...settings.headings],
        notes: settings.notes.slice(0, 60).map((one) => ({ ...one })),
        mapping: [...mapping],
        name: name.trim() || item.file.name,
        fileName: item.file.name,
        bytes: item.file.size,
        defaultCountry: country,
        sourceKind,
        lawfulBasis,
        gatheredOn: gatheredOn || null,
        price: sourceKind === 'bought' ? (priceOf(price) ?? null) : null,
        note,
      },
    })
    if (!made.data) return fail(problemText(made.error))
    const problem = await sendFile(made.data.id, item.file, {
      onProgress: (share) => setSending({ status: 'sending', share }),
      onBroken: (isBroken) => setSending((before) => (before.status === 'sending' ? { ...before, isBroken } : before)),
      signal: stopper.current.signal,
    })
    if (problem) fail(problem)
    else onSent(made.data.id)
  }
  return { sending, start, stop: () => stopper.current.abort() }
}
