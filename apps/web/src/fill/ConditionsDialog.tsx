import type { FillOptions } from '@upper-field/contract'
import { NO_CONDITION, PERSON_INPUTS, type PersonInput } from '@upper-field/core/fill'
import { useState } from 'react'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { ACCEPTS } from '../words/services'
import { countriesIn } from './plan'

type Condition = FillOptions['conditions'][string]

interface ConditionsDialogProps {
  readonly name: string
  /** What the provider accepts. */
  readonly accepts: readonly string[]
  readonly condition: Condition | undefined
  readonly onKeep: (condition: Condition) => void
  readonly onClose: () => void
}

/** On what asking one provider depends. */
export function ConditionsDialog({ name, accepts, condition, onKeep, onClose }: ConditionsDialogProps) {
  const given = { ...NO_CONDITION, ...condition }
  const [score, setScore] = useState(String(given.minScore))
  const [most, setMost] = useState(given.mostAsked === null ? '' : String(given.mostAsked))
  const [inputs, setInputs] = useState<readonly PersonInput[]>(given.inputs)
  const [countries, setCountries] = useState(given.countries.join(', '))
  const read = countriesIn(countries)
  const offered = PERSON_INPUTS.filter((input) => accepts.includes(input))
  const isScore = /^\d{1,3}$/.test(score.trim()) && Number(score) <= 100
  const isMost = most.trim() === '' || (/^\d{1,7}$/.test(most.trim()) && Number(most) > 0)
  return (
    <Dialog title={`Conditions for ${name}`} isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (isScore && isMost && read !== null)
            onKeep({
              minScore: Number(score),
              mostAsked: most.trim() === '' ? null : Number(most),
              inputs: [...inputs],
              countries: [...read],
            })
        }}
      >
        <TextField
          label="Match score of at least"
          inputMode="numeric"
          value={score}
          onChange={(event) => setScore(event.target.value)}
          error={isScore ? undefined : 'From 0 to 100.'}
          hint="Candidates the provider is less sure of are set aside and cost no line check."
        />
        <TextField
          label="Asked about at most"
          inputMode="numeric"
          value={most}
          onChange={(event) => setMost(event.target.value)}
          error={isMost ? undefined : 'A whole number of contacts, or nothing.'}
          hint="Contacts; nothing for no limit."
        />
        <TextField
          label="Only about contacts of"
          value={countries}
          onChange={(event) => setCountries(event.target.value)}
          error={read === null ? 'Countries by their two letters, such as GB, IE.' : undefined}
          hint="Countries by their two letters; nothing for all."
        />
        {offered.length > 1 ? (
          <fieldset>
            <legend className="pb-1 font-semibold">Only where this is known</legend>
            {offered.map((input) => (
              <label key={input} className="flex min-h-7 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-moss"
                  checked={inputs.includes(input)}
                  onChange={() =>
                    setInputs(inputs.includes(input) ? inputs.filter((one) => one !== input) : [...inputs, input])
                  }
                />
                {ACCEPTS[input]}
              </label>
            ))}
            <p className="text-[13px] text-soft">None chosen: whatever it accepts.</p>
          </fieldset>
        ) : null}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={!isScore || !isMost || read === null}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
