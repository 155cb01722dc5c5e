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

/** An entry counts for the whole of its last day, by UTC. @param day in ISO 8601 */
const endOf = (day: string): string => `${day}T23:59:59.999Z`

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
        hint="That day included. Blank: for good"
        type="date"
        value={facts.expiresAt?.slice(0, 10) ?? ''}
        onChange={({ target }) => onChange({ ...facts, expiresAt: target.value === '' ? null : endOf(target.value) })}
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
