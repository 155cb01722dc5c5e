import type { SuppressionAdded, SuppressionList } from '@upper-field/contract'
import { useState } from 'react'
import { problemText, useAddSuppressionEntriesMutation } from '../api'
import { CountrySelect } from '../bring/CountrySelect'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { count, plural } from '../words/format'

/** People are added a line each: typed, or pasted from a spreadsheet. */
export function AddEntries({ list }: { list: SuppressionList }) {
  const [text, setText] = useState('')
  const [country, setCountry] = useState<string | null>('GB')
  const [reason, setReason] = useState('')
  const [until, setUntil] = useState('')
  const [asHashes, setAsHashes] = useState(false)
  const [add, adding] = useAddSuppressionEntriesMutation()
  const lines = text.split('\n').filter((line) => line.trim() !== '').length
  const submit = async () => {
    const { data } = await add({
      params: { suppressionListId: list.id },
      body: { text, country, reason, asHashes, expiresAt: until === '' ? null : `${until}T00:00:00.000Z` },
    })
    // What could not be read stays, to be mended.
    if (data) setText(data.unread.map((line) => line.text).join('\n'))
  }
  return (
    <form
      aria-label="Add people"
      className="mb-5 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-5 gap-y-2 border-b border-line pb-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (lines > 0) void submit()
      }}
    >
      <label className="row-span-4 flex flex-col">
        <span className="pb-1 font-semibold">Numbers, addresses, domains or SHA-256 hashes, a line each</span>
        <textarea
          value={text}
          onChange={(event) => setText(event.target.value)}
          spellCheck={false}
          className="num min-h-36 w-full flex-1 rounded-small border border-edge bg-surface px-2 py-1"
        />
      </label>
      <CountrySelect hint="For numbers without a country code" value={country} onChange={setCountry} />
      <TextField label="Reason" value={reason} maxLength={200} onChange={(event) => setReason(event.target.value)} />
      <TextField
        label="Until"
        hint="Blank: for good"
        type="date"
        value={until}
        onChange={(event) => setUntil(event.target.value)}
      />
      <div className="flex flex-wrap items-center justify-between gap-2">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={asHashes}
            onChange={(event) => setAsHashes(event.target.checked)}
            className="size-4 accent-moss"
          />
          Keep only their hashes
        </label>
        <Button look="main" type="submit" disabled={lines === 0 || adding.isLoading}>
          Add {plural(lines, 'line')}
        </Button>
      </div>
      <div className="col-span-2">
        {adding.error ? <Notice tone="bad">{problemText(adding.error)}</Notice> : null}
        {adding.data ? <Outcome added={adding.data} /> : null}
      </div>
    </form>
  )
}

function Outcome({ added }: { added: SuppressionAdded }) {
  const { unreadTotal } = added
  return (
    <Notice tone={unreadTotal > 0 ? 'look' : 'told'}>
      {plural(added.added, 'entry', 'entries')} added
      {added.known > 0 ? `, ${count(added.known)} on the list already` : ''}. {plural(added.marked, 'contact')} marked
      in all lists.
      {unreadTotal > 0
        ? ` ${plural(unreadTotal, 'line')} ${unreadTotal === 1 ? 'holds' : 'hold'} no number, address, domain or hash and ${unreadTotal === 1 ? 'suppresses nobody: it stands' : 'suppress nobody: they stand'} in the box again.`
        : ''}
    </Notice>
  )
}
