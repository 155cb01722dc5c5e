import { CountrySelect } from '../bring/CountrySelect'
import { TextField } from '../kit/Field'

/** What is told of every entry beside its key. */
export interface EntryFacts {
  readonly country: string | null
  readonly reason: string
  readonly expiresAt: string | null
  readonly asHashes: boolean
}

export const NO_FACTS: EntryFacts = { country: 'GB', reason: '', expiresAt: null, asHashes: false }

export function EntryFactsFields({ facts, onChange }: { facts: EntryFacts; onChange: (facts: EntryFacts) => void }) {
  return (
    <>
      <CountrySelect
        hint="For numbers without a country code"
        value={facts.country}
        onChange={(country) => onChange({ ...facts, country })}
      />
      <TextField
        label="Reason"
        value={facts.reason}
        maxLength={200}
        onChange={(event) => onChange({ ...facts, reason: event.target.value })}
      />
      <TextField
        label="Until"
        hint="Blank: for good"
        type="date"
        value={facts.expiresAt?.slice(0, 10) ?? ''}
        onChange={({ target }) =>
          onChange({ ...facts, expiresAt: target.value === '' ? null : `${target.value}T00:00:00.000Z` })
        }
      />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={facts.asHashes}
          onChange={(event) => onChange({ ...facts, asHashes: event.target.checked })}
          className="size-4 accent-moss"
        />
        Keep only their hashes
      </label>
    </>
  )
}
