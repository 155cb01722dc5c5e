import { useId, useState } from 'react'
import { SelectField } from '../kit/Field'

/** No document is as long as this, in bytes. */
const LONGEST_FILE = 200_000

interface StartFromProps {
  /** What the document is, as `a connector`. */
  readonly what: string
  /** What there is to begin with: id and name. */
  readonly choices: readonly (readonly [id: string, name: string])[]
  /** Called with an id, or with nothing for a blank one. */
  readonly onChoose: (id: string) => void
  readonly onText: (text: string) => void
}

/** What a new document begins as: nothing, one that is there already, or a file. */
export function StartFrom({ what, choices, onChoose, onText }: StartFromProps) {
  const [problem, setProblem] = useState('')
  const fileId = useId()
  const take = async (file: File | undefined) => {
    if (!file) return
    if (file.size > LONGEST_FILE) return setProblem(`This file is too long to be ${what}. Nothing was taken.`)
    setProblem('')
    onText(await file.text())
  }
  return (
    <div className="grid grid-cols-2 gap-4">
      <SelectField label="Start from" defaultValue="" onChange={(event) => onChoose(event.target.value)}>
        <option value="">a blank one</option>
        {choices.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
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
