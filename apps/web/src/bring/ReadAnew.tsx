import type { Batch } from '@upper-field/contract'
import type { Field } from '@upper-field/core/table'
import { useState } from 'react'
import { useReadBatchAnewMutation } from '../api'
import { Button } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { plural } from '../words/format'
import { FIELD } from '../words/sentences'
import { CountrySelect } from './CountrySelect'

/** A batch read under another country, or with its columns mapped otherwise: its contacts are made anew from its rows. */
export function ReadAnew({ batch }: { batch: Batch }) {
  const [isOpen, setIsOpen] = useState(false)
  if (!isOpen)
    return (
      <Button className="mt-4" aria-expanded={false} onClick={() => setIsOpen(true)}>
        Read it otherwise …
      </Button>
    )
  return <ReadingForm key={batch.id} batch={batch} onDone={() => setIsOpen(false)} />
}

function ReadingForm({ batch, onDone }: { batch: Batch; onDone: () => void }) {
  const [country, setCountry] = useState(batch.defaultCountry)
  const [mapping, setMapping] = useState(batch.mapping)
  const [readAnew, { error, isLoading }] = useReadBatchAnewMutation()
  const isSame = country === batch.defaultCountry && mapping.every((field, i) => field === batch.mapping[i])
  const apply = async () => {
    const answer = await readAnew({ params: { batchId: batch.id }, body: { defaultCountry: country, mapping } })
    if (!answer.error) onDone()
  }
  return (
    <form
      aria-label="Read it otherwise"
      className="mt-4 max-w-3xl rounded-small border border-edge bg-surface p-4"
      onSubmit={(event) => {
        event.preventDefault()
        void apply()
      }}
    >
      <h2 className="pb-2 text-[15px]">Read it otherwise</h2>
      <div className="grid max-w-md gap-3">
        <CountrySelect
          value={country}
          onChange={setCountry}
          hint="Numbers without a code are dialled from here where the row names no country."
        />
      </div>
      <ul className="grid grid-cols-2 gap-x-6 gap-y-1 py-3">
        {batch.headings.map((heading, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
          <li key={i} className="flex items-center justify-between gap-2">
            <span className="min-w-0 truncate">{heading || `Column ${i + 1}`}</span>
            <FieldSelect
              label={heading || `Column ${i + 1}`}
              value={mapping[i] ?? null}
              onChange={(field) => setMapping(mapping.map((one, at) => (at === i ? field : one)))}
            />
          </li>
        ))}
      </ul>
      <p className="pb-3 text-[13px] text-soft">
        Every contact of this batch is made anew from its row; joins, fills and what people edited stay. It can be taken
        back in Tidy.
      </p>
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={isSame || isLoading}>
          Read {plural(batch.rows - batch.held, 'row')} anew
        </Button>
        <Button onClick={onDone}>Leave it as it is</Button>
      </div>
      <Refused by={[{ error }]} />
    </form>
  )
}

function FieldSelect({
  label,
  value,
  onChange,
}: {
  label: string
  value: Field | null
  onChange: (field: Field | null) => void
}) {
  return (
    <select
      aria-label={`${label} holds`}
      value={value ?? ''}
      onChange={(event) => onChange((event.target.value || null) as Field | null)}
      className="min-h-7 w-44 shrink-0 rounded-small border border-edge bg-surface px-1"
    >
      <option value="">kept as extra</option>
      {Object.entries(FIELD).map(([field, title]) => (
        <option key={field} value={field}>
          {title}
        </option>
      ))}
    </select>
  )
}
