import type { CountryInference } from '@upper-field/core/table'
import { TextButton } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { countryName } from '../words/format'
import { CountrySelect } from './CountrySelect'
import { hintFor, isQuestioned, sentenceOf } from './countryWords'
import type { NumberCount } from './headWorker'

export interface CountryChoiceProps {
  readonly inferred: CountryInference
  readonly country: string | null
  readonly onChange: (country: string | null) => void
  readonly count: NumberCount | null
  /** True where the layout was brought in before, under this country. */
  readonly isKnown: boolean
}

/** Where the numbers of a file are dialled from: proposed with what tells so, and questioned where it reads next to nothing. */
export function CountryChoice({ inferred, country, onChange, count, isKnown }: CountryChoiceProps) {
  const other = inferred.suggested !== null && inferred.suggested !== country ? inferred.suggested : null
  return (
    <div className="flex flex-col gap-2">
      <CountrySelect value={country} onChange={onChange} hint={hintFor(inferred, country, isKnown)} />
      {count ? <p className="text-[13px]">{sentenceOf(count)}</p> : null}
      {count && isQuestioned(count) ? (
        <Notice tone="look">
          {country === null
            ? 'Without a country hardly any of these numbers can be read.'
            : `Hardly any of these numbers is one of ${countryName(country)}.`}{' '}
          {other ? (
            <TextButton onClick={() => onChange(other)}>Take {countryName(other)}</TextButton>
          ) : (
            'Choose the country they are dialled from.'
          )}
        </Notice>
      ) : null}
    </div>
  )
}
