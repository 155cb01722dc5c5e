import { MOST_PICKED, type TidyState } from '@upper-field/contract'
import { useState } from 'react'
import { useMakeBulkEditMutation, useReadContactsInfiniteQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { SelectField, TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'
import { columnTitle } from '../words/tidying'
import type { PickedContacts } from './usePicked'

/** One value for every contact the filter chooses, or for those that are picked. */
export function BulkEdit({ state, picking }: { state: TidyState; picking: PickedContacts }) {
  const view = useListView()
  const { currentData } = useReadContactsInfiniteQuery({ listId: view.listId, filter: view.text, sort: 'row' })
  const [column, setColumn] = useState('')
  const [value, setValue] = useState('')
  const [edit, editing] = useMakeBulkEditMutation()
  const chosen = currentData?.pages[0]
  const isPicked = picking.picked.size > 0
  const n = isPicked ? picking.picked.size : (chosen?.total ?? 0)
  // What is picked counts whatever the filter shows now.
  const whom = isPicked ? { filter: '', contactIds: [...picking.picked] } : { filter: view.text }
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        void edit({ params: { listId: view.listId }, body: { ...whom, column, value } })
      }}
    >
      <div>
        <h2>Set a value for all of these</h2>
        <p className="text-soft">
          {isPicked
            ? `${plural(n, 'contact')} picked.`
            : 'Narrow the list by the piles or the search, or pick contacts one by one (x).'}{' '}
          It can be taken back whole.
        </p>
        {isPicked ? <TextButton onClick={picking.clear}>Pick none</TextButton> : null}
      </div>
      <SelectField label="Column" value={column} onChange={(event) => setColumn(event.target.value)}>
        <option value="">Choose a column</option>
        {state.columns.map(({ name }) => (
          <option key={name} value={name}>
            {columnTitle(name)}
          </option>
        ))}
      </SelectField>
      <TextField
        label="Value"
        value={value}
        onChange={(event) => setValue(event.target.value)}
        hint="Left blank, the cell is blanked."
      />
      <Refused by={[editing]} />
      {editing.data ? <Notice tone="told">Under way: it shows among the jobs.</Notice> : null}
      <Button
        type="submit"
        disabled={column === '' || n === 0 || n > (isPicked ? MOST_PICKED : Infinity) || editing.isLoading}
      >
        Set it for {isPicked ? 'the ' : ''}
        {count(n)}
        {!isPicked && chosen?.isCapped ? '+' : ''} {isPicked ? 'picked' : n === 1 ? 'contact' : 'contacts'}
      </Button>
    </form>
  )
}
