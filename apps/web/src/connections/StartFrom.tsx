import { useId, useState } from 'react'
import { useLazyReadConnectorQuery, useReadConnectionsQuery } from '../api'
import { SelectField } from '../kit/Field'
import { blank, textOf } from './draft'

/** No connector is as long as this, in bytes. */
const LONGEST_FILE = 200_000

/** What a new connector begins as: nothing, one that is there already, or a file. */
export function StartFrom({ onText }: { onText: (text: string) => void }) {
  const { data: connections = [] } = useReadConnectionsQuery({})
  const [read] = useLazyReadConnectorQuery()
  const [problem, setProblem] = useState('')
  const fileId = useId()
  const choose = async (provider: string) => {
    if (provider === '') return onText(blank())
    const { data } = await read({ params: { provider } })
    if (data) onText(textOf({ ...data, id: `${data.id}-2`, name: `${data.name} 2` }))
  }
  const take = async (file: File | undefined) => {
    if (!file) return
    if (file.size > LONGEST_FILE) return setProblem('This file is too long to be a connector. Nothing was taken.')
    setProblem('')
    onText(await file.text())
  }
  return (
    <div className="grid grid-cols-2 gap-4">
      <SelectField label="Start from" defaultValue="" onChange={(event) => void choose(event.target.value)}>
        <option value="">a blank connector</option>
        {connections.map(({ provider, name }) => (
          <option key={provider} value={provider}>
            a copy of {name}
          </option>
        ))}
      </SelectField>
      <div>
        <label htmlFor={fileId} className="block pb-1 font-semibold">
          or from a file
        </label>
        <input
          id={fileId}
          type="file"
          accept=".json,application/json"
          className="w-full file:mr-3 file:min-h-8 file:rounded-small file:border file:border-solid file:border-edge file:bg-surface file:px-3 file:font-semibold"
          onChange={(event) => void take(event.target.files?.[0])}
        />
        {problem ? <p className="pt-1 text-[13px] text-beet">{problem}</p> : null}
      </div>
    </div>
  )
}
