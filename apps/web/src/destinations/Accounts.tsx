import { problemText } from '../api'
import { Notice } from '../kit/Notice'
import { AccountName } from '../send/AccountName'
import { useReadAccountsQuery, useReadDestinationKeysQuery } from '../send/audienceApi'

/** Accounts at a network, each with what it lacks and what to do about it. */
export function Accounts({ destinationId }: { destinationId: string }) {
  const { data: keys } = useReadDestinationKeysQuery({})
  const hasKey = keys?.some(({ destination }) => destination === destinationId) ?? false
  const { data: accounts, error } = useReadAccountsQuery({ params: { destinationId } }, { skip: !hasKey })
  if (!keys || !hasKey) return null
  return (
    <section aria-label="Accounts" className="pb-4">
      <h2 className="pb-1 text-[16px]">Accounts</h2>
      {error ? <Notice tone="look">{problemText(error)}</Notice> : null}
      <ul>
        {accounts?.map(({ id, name, lacks }) => (
          <li key={id} className="border-t border-line py-1.5">
            <AccountName id={id} name={name} /> <span className="num text-[13px] text-soft">{id}</span>
            {lacks.length === 0 ? <span className="text-[13px] text-moss"> lacks nothing</span> : null}
            {lacks.map(({ code, says, remedy, takes }) => (
              <div key={code} className="text-[13px] text-beet">
                {says} {remedy} {takes ? `That takes ${takes}.` : ''}
              </div>
            ))}
          </li>
        ))}
      </ul>
    </section>
  )
}
