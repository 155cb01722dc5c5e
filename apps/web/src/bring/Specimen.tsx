import { type Batch, LAWFUL_BASES, SOURCE_KINDS } from '@upper-field/contract'
import { DELIMITERS, type Dialect, ENCODINGS, type Field, type OpenedTable } from '@upper-field/core/table'
import { type ReactNode, useRef, useState } from 'react'
import { problemText, useMakeBatchMutation } from '../api'
import { Button } from '../kit/Button'
import { SelectField, TextField } from '../kit/Field'
import { Loading, Notice } from '../kit/Notice'
import { bytes } from '../words/format'
import { BASIS, FILE_PROBLEM, SOURCE } from '../words/sentences'
import { ColumnStrips } from './ColumnStrips'
import { CountrySelect } from './CountrySelect'
import { sendFile } from './sendFile'
import { useHead } from './useHead'

interface SpecimenProps {
  readonly file: File
  readonly listId: string
  readonly onDone: (batchId: string) => void
  readonly onCancel: () => void
}

/** A file on the bench: what its columns hold, what they become, where it came from. Nothing is sent yet. */
export function Specimen({ file, listId, onDone, onCancel }: SpecimenProps) {
  const [country, setCountry] = useState<string | null>(null)
  const [dialect, setDialect] = useState<Partial<Dialect>>({})
  const opened = useHead(file, country, dialect)
  const [changed, setChanged] = useState<Readonly<Record<number, Field | null>>>({})
  if (!opened) return <Loading what={file.name} />
  if (opened.status === 'refused') {
    return (
      <main className="flex max-w-xl flex-col items-start gap-4 p-6">
        <h1>{file.name}</h1>
        <Notice tone="bad">{FILE_PROBLEM[opened.problem]}</Notice>
        <Button onClick={onCancel}>Choose another file</Button>
      </main>
    )
  }
  const mapping = opened.suggestions.map(({ field }, i) => (i in changed ? (changed[i] ?? null) : field))
  const mapped = mapping.filter((field) => field !== null).length
  return (
    <div className="flex h-full min-h-0">
      <main className="flex min-w-0 flex-1 flex-col px-5 py-3">
        <div className="flex flex-wrap items-baseline gap-x-3 pb-2">
          <h1>{file.name}</h1>
          <p className="text-soft">
            {bytes(file.size)} · {opened.hasHeadings ? 'headings in row 1' : 'no headings'} · {mapped} of{' '}
            {mapping.length} columns understood
          </p>
        </div>
        <ColumnStrips
          opened={opened}
          mapping={mapping}
          onMap={(column, field) => {
            const once = field !== null && field !== 'number' && field !== 'email'
            const others = once
              ? Object.fromEntries(mapping.flatMap((other, i) => (other === field && i !== column ? [[i, null]] : [])))
              : {}
            setChanged({ ...changed, ...others, [column]: field })
          }}
        />
      </main>
      <SourceForm
        {...{ file, listId, opened, mapping, country, setCountry, onDone, onCancel }}
        dialectFields={
          <div className="grid grid-cols-2 gap-2">
            <SelectField
              label="Between cells"
              value={opened.dialect.delimiter}
              onChange={(event) => setDialect({ ...dialect, delimiter: event.target.value })}
            >
              {DELIMITERS.map((delimiter) => (
                <option key={delimiter} value={delimiter}>
                  {{ ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' }[delimiter]}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Letters"
              value={opened.dialect.encoding}
              onChange={(event) => setDialect({ ...dialect, encoding: event.target.value as Dialect['encoding'] })}
            >
              {ENCODINGS.map((encoding) => (
                <option key={encoding} value={encoding}>
                  {encoding === 'utf-8' ? 'UTF-8' : 'Windows-1252'}
                </option>
              ))}
            </SelectField>
          </div>
        }
      />
    </div>
  )
}

interface SourceFormProps extends SpecimenProps {
  readonly opened: OpenedTable
  readonly mapping: readonly (Field | null)[]
  readonly country: string | null
  readonly setCountry: (country: string | null) => void
  readonly dialectFields: ReactNode
}

type Sending =
  | { readonly status: 'idle' }
  | { readonly status: 'sending'; readonly share: number }
  | { readonly status: 'failed'; readonly sentence: string }

function SourceForm({
  file,
  listId,
  opened,
  mapping,
  country,
  setCountry,
  onDone,
  onCancel,
  dialectFields,
}: SourceFormProps) {
  const [name, setName] = useState(file.name.replace(/\.[a-z]+$/i, ''))
  const [sourceKind, setSourceKind] = useState<Batch['sourceKind']>('other')
  const [lawfulBasis, setLawfulBasis] = useState<Batch['lawfulBasis']>('not-stated')
  const [gatheredOn, setGatheredOn] = useState('')
  const [makeBatch] = useMakeBatchMutation()
  const [sending, setSending] = useState<Sending>({ status: 'idle' })
  const stopper = useRef(new AbortController())
  const reaches = mapping.some((field) => field === 'number' || field === 'email')
  const start = async () => {
    stopper.current = new AbortController()
    setSending({ status: 'sending', share: 0 })
    const made = await makeBatch({
      params: { listId },
      body: {
        ...opened.dialect,
        name: name.trim() || file.name,
        fileName: file.name,
        bytes: file.size,
        hasHeadings: opened.hasHeadings,
        headings: [...opened.headings],
        mapping: [...mapping],
        defaultCountry: country,
        sourceKind,
        lawfulBasis,
        gatheredOn: gatheredOn || null,
        note: '',
      },
    })
    if (!made.data) return setSending({ status: 'failed', sentence: problemText(made.error) })
    const problem = await sendFile(made.data.id, file, {
      onProgress: (share) => setSending({ status: 'sending', share }),
      signal: stopper.current.signal,
    })
    if (problem) setSending({ status: 'failed', sentence: problem })
    else onDone(made.data.id)
  }
  return (
    <aside
      aria-label="Where it came from"
      className="flex h-full w-[312px] shrink-0 flex-col gap-3 overflow-y-auto border-l border-line bg-surface px-4 py-3"
    >
      <h2>Where it came from</h2>
      <TextField
        label="Name of the batch"
        value={name}
        onChange={(event) => setName(event.target.value)}
        maxLength={200}
      />
      <SelectField
        label="Source"
        value={sourceKind}
        onChange={(event) => setSourceKind(event.target.value as Batch['sourceKind'])}
      >
        {SOURCE_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {SOURCE[kind]}
          </option>
        ))}
      </SelectField>
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          label="Lawful basis"
          value={lawfulBasis}
          onChange={(event) => setLawfulBasis(event.target.value as Batch['lawfulBasis'])}
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
          value={gatheredOn}
          onChange={(event) => setGatheredOn(event.target.value)}
        />
      </div>
      <CountrySelect
        value={country}
        onChange={setCountry}
        hint={
          mapping.includes('country')
            ? 'Counts where a row names none.'
            : 'No column names a country: numbers without a code need one.'
        }
      />
      {dialectFields}
      {reaches ? null : (
        <Notice tone="look">
          No column becomes a number or an e-mail. Choose one, or nobody in this file can be reached.
        </Notice>
      )}
      {sending.status === 'failed' ? <Notice tone="bad">{sending.sentence}</Notice> : null}
      {sending.status === 'sending' ? (
        <div className="flex items-center gap-3">
          <progress aria-label="Sending the file" max={1} value={sending.share} className="h-2 flex-1 accent-moss" />
          <Button onClick={() => stopper.current.abort()}>Stop</Button>
        </div>
      ) : (
        <div className="flex gap-2">
          <Button look="main" className="flex-1" disabled={!reaches} onClick={() => void start()}>
            Bring in {bytes(file.size)}
          </Button>
          <Button onClick={onCancel}>Cancel</Button>
        </div>
      )}
      <p className="text-[13px] text-soft">
        Looked at on this machine only so far. Rows are kept as they stood, whatever is done to them later.
      </p>
    </aside>
  )
}
