import { useState } from 'react'
import { useChangeLawfulRegionsMutation, useReadLawfulRegionsQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { useIsOwner } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { count, countryName } from '../words/format'

/** Where personal data is bought only on a recorded lawful basis: off until an owner decides. */
export function LawfulRegions({ leftOut }: { leftOut: number }) {
  const { data } = useReadLawfulRegionsQuery({})
  const isOwner = useIsOwner()
  const [isOpen, setIsOpen] = useState(false)
  if (!data) return null
  const { countries } = data
  return (
    <p className="text-[13px] text-soft">
      {countries.length === 0
        ? 'No country needs a recorded lawful basis.'
        : `A lawful basis must be recorded for ${countries.map(countryName).join(', ')}.`}
      {leftOut > 0 ? ` ${count(leftOut)} are left out.` : ''}{' '}
      {isOwner ? <TextButton onClick={() => setIsOpen(true)}>Change</TextButton> : null}
      {isOpen ? <RegionsDialog countries={countries} onClose={() => setIsOpen(false)} /> : null}
    </p>
  )
}

/** Country codes as they are typed; null where one of them is none. */
export function countriesOf(text: string): string[] | null {
  const codes = text
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean)
  return codes.every((code) => /^[A-Z]{2}$/.test(code) && countryName(code) !== code) ? [...new Set(codes)] : null
}

function RegionsDialog({ countries, onClose }: { countries: readonly string[]; onClose: () => void }) {
  const [text, setText] = useState(countries.join(', '))
  const [change, { error, isLoading }] = useChangeLawfulRegionsMutation()
  const typed = countriesOf(text)
  const keep = async () => {
    if (typed && !(await change({ body: { countries: typed } })).error) onClose()
  }
  return (
    <Dialog title="Where a lawful basis is needed" isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void keep()
        }}
      >
        <p>
          Contacts of these countries are asked about only where their source has a recorded lawful basis. For all
          lists.
        </p>
        <TextField
          label="Countries"
          value={text}
          onChange={(event) => setText(event.target.value)}
          error={typed === null ? 'Codes of two letters, such as DE, FR.' : undefined}
          hint={typed && typed.length > 0 ? typed.map(countryName).join(', ') : 'Codes of two letters; empty for none.'}
        />
        <Refused by={[{ error }]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={typed === null || isLoading}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
