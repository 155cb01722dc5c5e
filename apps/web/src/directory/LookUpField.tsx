import type { Named } from '@upper-field/contract'
import { useEffect, useId, useState } from 'react'
import { problemText } from '../api'
import { TextField } from '../kit/Field'
import { useLookUpInDirectoryQuery } from './directoryApi'
import { useOptions } from './useOptions'

/** How long is waited after the last letter before it is looked up, in milliseconds. */
const PAUSE = 250

interface LookUpProps {
  readonly provider: string
  readonly what: 'trades' | 'places'
  readonly label: string
  readonly hint: string
  readonly value: Named | null
  readonly onChange: (value: Named | null) => void
}

/** A trade or a place that the directory knows: typed, looked up there, chosen. */
export function LookUpField({ provider, what, label, hint, value, onChange }: LookUpProps) {
  const id = useId()
  const [typed, setTyped] = useState(value?.name ?? '')
  const search = useLater(typed.trim())
  const isSearching = value === null && search !== ''
  const { currentData, error, isFetching } = useLookUpInDirectoryQuery(
    { params: { provider, what }, query: { search } },
    { skip: !isSearching },
  )
  const found = isSearching ? (currentData ?? []) : []
  const options = useOptions(found, (one) => {
    setTyped(one.name)
    onChange(one)
  })
  const isUnknown = isSearching && currentData?.length === 0 && search === typed.trim()
  const problem = error ? problemText(error) : isUnknown ? `The directory knows no “${search}”.` : undefined
  return (
    <div className="relative">
      <TextField
        label={label}
        value={typed}
        role="combobox"
        autoComplete="off"
        aria-autocomplete="list"
        aria-expanded={options.shown.length > 0}
        aria-controls={`${id}-options`}
        aria-activedescendant={options.shown.length > 0 ? `${id}-${options.at}` : undefined}
        hint={value ? 'Chosen from what the directory knows.' : isFetching ? 'Looking it up …' : hint}
        error={problem}
        onChange={(event) => {
          setTyped(event.target.value)
          if (value) onChange(null)
          options.open()
        }}
        onFocus={() => options.open()}
        onBlur={() => options.close()}
        onKeyDown={(event) => {
          if (options.key(event.key)) event.preventDefault()
        }}
      />
      <div
        id={`${id}-options`}
        role="listbox"
        aria-label={`${label}: what the directory knows`}
        className={`absolute left-0 top-[62px] z-40 max-h-64 w-full overflow-y-auto rounded-small border border-edge bg-surface py-1 shadow-lg ${options.shown.length > 0 ? '' : 'hidden'}`}
      >
        {options.shown.map(({ code, name }, at) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: arrows and Enter work in the field itself
          <div
            key={code}
            id={`${id}-${at}`}
            role="option"
            tabIndex={-1}
            aria-selected={at === options.at}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => options.take(at)}
            className={`cursor-pointer px-2 py-1 ${at === options.at ? 'bg-lichen' : ''}`}
          >
            {name}
          </div>
        ))}
      </div>
    </div>
  )
}

/** A text once nobody has typed for a moment. */
function useLater(text: string): string {
  const [later, setLater] = useState(text)
  useEffect(() => {
    const timer = window.setTimeout(() => setLater(text), PAUSE)
    return () => window.clearTimeout(timer)
  }, [text])
  return later
}
