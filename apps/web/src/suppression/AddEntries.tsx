import type { SuppressionAdded, SuppressionList } from '@upper-field/contract'
import { useState } from 'react'
import { useAddSuppressionEntriesMutation } from '../api'
import { Button } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { plural } from '../words/format'
import { addedText } from './addedText'
import { EntryFactsFields, NO_FACTS } from './EntryFactsFields'

/** People are added a line each: typed, or pasted from a spreadsheet. */
export function AddEntries({ list }: { list: SuppressionList }) {
  const [text, setText] = useState('')
  const [facts, setFacts] = useState(NO_FACTS)
  const [add, adding] = useAddSuppressionEntriesMutation()
  const typed = text.split('\n')
  const lines = typed.filter((line) => line.trim() !== '').length
  const submit = async () => {
    const { data } = await add({ params: { suppressionListId: list.id }, body: { text, ...facts } })
    // What could not be read stays as it was typed, to be mended.
    if (data) setText(data.unread.map(({ line, text: told }) => typed[line - 1] ?? told).join('\n'))
  }
  return (
    <form
      aria-label="Add people"
      className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-5 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (lines > 0) void submit()
      }}
    >
      <label className="row-span-5 flex flex-col">
        <span className="pb-1 font-semibold">Numbers, addresses, domains or SHA-256 hashes, a line each</span>
        <textarea
          value={text}
          readOnly={adding.isLoading}
          onChange={(event) => setText(event.target.value)}
          spellCheck={false}
          className="num min-h-36 w-full flex-1 rounded-small border border-edge bg-surface px-2 py-1"
        />
      </label>
      <EntryFactsFields facts={facts} onChange={setFacts} />
      <Button look="main" type="submit" className="justify-self-start" disabled={lines === 0 || adding.isLoading}>
        {lines === 0 ? 'Add' : `Add ${plural(lines, 'line')}`}
      </Button>
      <div className="col-span-2">
        <Refused by={[adding]} />
        {adding.data ? <Outcome added={adding.data} /> : null}
      </div>
    </form>
  )
}

function Outcome({ added }: { added: SuppressionAdded }) {
  const { unreadTotal } = added
  return (
    <Notice tone={unreadTotal > 0 ? 'look' : 'told'}>
      {addedText(added)}
      {unreadTotal > 0
        ? ` ${plural(unreadTotal, 'line')} ${unreadTotal === 1 ? 'holds' : 'hold'} no number, address, domain or hash and ${unreadTotal === 1 ? 'suppresses nobody: it stands' : 'suppress nobody: they stand'} in the box again.`
        : ''}
    </Notice>
  )
}
