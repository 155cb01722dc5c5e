import type { Named } from '@upper-field/contract'
import { useId, useState } from 'react'
import { problemText } from '../api'
import { TextField } from '../kit/Field'
import { OptionList, optionsTold } from '../kit/OptionList'
import { useOptions } from '../kit/useOptions'
import { usePaused } from '../kit/usePaused'
import { useLookUpInDirectoryQuery } from './directoryApi'

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
  const [search, setSearch] = useState(typed.trim())
  const [isOpen, setIsOpen] = useState(false)
  usePaused(typed.trim(), setSearch)
  const isSearching = value === null && search !== ''
  const { currentData, error, isFetching } = useLookUpInDirectoryQuery(
    { params: { provider, what }, query: { search } },
    { skip: !isSearching },
  )
  const options = useOptions<Named>({
    all: isOpen && isSearching ? (currentData ?? []) : [],
    isFirstChosen: true,
    onTake: (one) => {
      setTyped(one.name)
      onChange(one)
    },
    onClose: () => setIsOpen(false),
  })
  const open = () => {
    setIsOpen(true)
    options.begin()
  }
  const isUnknown = isSearching && currentData?.length === 0 && search === typed.trim()
  const problem = error ? problemText(error) : isUnknown ? `The directory knows no “${search}”.` : undefined
  return (
    <div className="relative">
      <TextField
        label={label}
        value={typed}
        {...optionsTold(id, options)}
        aria-autocomplete="list"
        hint={value ? 'Chosen from what the directory knows.' : isFetching ? 'Looking it up …' : hint}
        error={problem}
        onChange={(event) => {
          setTyped(event.target.value)
          if (value) onChange(null)
          open()
        }}
        onFocus={open}
        onBlur={() => setIsOpen(false)}
        onKeyDown={(event) => {
          if (options.key(event.key)) event.preventDefault()
        }}
      />
      <OptionList
        id={id}
        label={`${label}: what the directory knows`}
        options={options}
        keyOf={({ code }) => code}
        shown={({ name }) => name}
        className="top-[62px] max-h-64 w-full overflow-y-auto"
        optionClass="py-1"
      />
    </div>
  )
}
