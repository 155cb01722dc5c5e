import type { Account, DestinationDocument } from '@upper-field/contract'
import { type Purpose, whyNotFor } from '@upper-field/core/send'
import { lastRead, Unanswered } from '../shell/Answer'
import { AccountName } from './AccountName'
import { useReadAccountsQuery } from './audienceApi'

interface AccountChoiceProps {
  readonly destination: DestinationDocument
  readonly purpose: Purpose
  readonly chosen: Account | null
  /** The account this list was sent to last. */
  readonly remembered: string | null
  readonly onChoose: (account: Account) => void
}

/** The account is chosen, never guessed: each with its colour, and with what it lacks. */
export function AccountChoice({ destination, purpose, chosen, remembered, onChoose }: AccountChoiceProps) {
  const asked = useReadAccountsQuery({ params: { destinationId: destination.id } })
  const accounts = lastRead(asked)
  if (!accounts) return <Unanswered of={[asked]} what="the accounts" />
  return (
    <fieldset>
      <legend className="pb-1 font-semibold">Account</legend>
      {accounts.map((account) => {
        const codes = { ...account, lacks: account.lacks.map(({ code }) => code) }
        const lack = destination.network ? whyNotFor(destination.network, codes, purpose) : null
        return (
          <label key={account.id} className="flex items-start gap-2 py-1">
            <input
              type="radio"
              name="account"
              className="mt-1 accent-moss"
              checked={chosen?.id === account.id}
              onChange={() => onChoose(account)}
            />
            <span>
              <AccountName id={account.id} name={account.name} />{' '}
              <span className="num text-[13px] text-soft">{account.id}</span>
              {remembered === account.id ? (
                <span className="text-[13px] text-soft"> · used last by this list</span>
              ) : null}
              {lack ? (
                <span className="block text-[13px] text-beet">
                  {lack.says} {lack.remedy} {lack.takes ? `That takes ${lack.takes}.` : ''}
                </span>
              ) : null}
            </span>
          </label>
        )
      })}
    </fieldset>
  )
}
