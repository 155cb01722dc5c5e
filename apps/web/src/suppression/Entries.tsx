import type { SuppressionEntry } from '@upper-field/contract'
import { useDropSuppressionEntryMutation } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { TextButton } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { date, dayInUtc, phone } from '../words/format'

const KIND: Record<SuppressionEntry['kind'], string> = {
  number: 'number',
  email: 'e-mail',
  domain: 'domain',
  hash: 'hash',
}

const HASHED: Record<SuppressionEntry['kind'], string> = {
  number: 'hash of a number',
  email: 'hash of an e-mail',
  domain: 'hash of a domain',
  hash: 'hash, as it was given',
}

/** What comes of taking an entry off. */
const takenOff = (key: string | null): string =>
  `Whom it keeps out can be texted, called and sent again from then on, unless another entry keeps them out.${
    key === null ? ' What it stands for is not kept: nobody can add it again from here.' : ''
  }`

/** Who is on a list, newest first. */
export function Entries({ entries, mayChange }: { entries: readonly SuppressionEntry[]; mayChange: boolean }) {
  const [drop, dropping] = useDropSuppressionEntryMutation()
  return (
    <>
      <Refused by={[dropping]} />
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">Who</th>
            <th>Kept as</th>
            <th>Reason</th>
            <th>Added</th>
            <th>Until</th>
            <th>
              <span className="sr-only">Take off</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {entries.map(({ id, kind, key, isMasked, reason, source, addedBy, addedAt, expiresAt }) => (
            <tr key={id} className="border-b border-line align-baseline">
              <td className={`py-1.5 ${kind === 'number' ? 'num' : ''}`}>
                {key === null ? (
                  <span className="text-soft">not kept</span>
                ) : kind === 'number' && !isMasked ? (
                  phone(key)
                ) : (
                  key
                )}
              </td>
              <td>{key === null ? HASHED[kind] : KIND[kind]}</td>
              <td>{reason || <span className="text-soft">–</span>}</td>
              <td>
                {date(addedAt)}{' '}
                <span className="text-soft">{source === null ? `by ${addedBy}` : `with ${source}`}</span>
              </td>
              <td>{expiresAt ? dayInUtc(expiresAt) : <span className="text-soft">for good</span>}</td>
              <td className="text-right">
                {mayChange ? (
                  <AskFirst
                    title="Take this entry off the list?"
                    says={takenOff(key)}
                    does="Take it off"
                    onDo={() => void drop({ params: { entryId: id } })}
                  >
                    {(ask) => (
                      <TextButton disabled={dropping.isLoading} onClick={ask}>
                        Take off
                      </TextButton>
                    )}
                  </AskFirst>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
