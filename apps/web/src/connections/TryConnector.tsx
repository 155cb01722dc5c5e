import type { ConnectorDocument, ConnectorTried } from '@upper-field/contract'
import { type InputSet, priceOf } from '@upper-field/core/connect'
import { mostCost } from '@upper-field/core/fill'
import { useState } from 'react'
import { useTryConnectorMutation } from '../api'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { money } from '../words/format'
import { JOB_PROBLEM } from '../words/jobs'
import type { Draft } from './draft'

const VALUES = {
  name: 'Full name',
  company: 'Company',
  domain: 'Domain',
  profile: 'Profile address',
  email: 'E-mail',
  number: 'Number',
  country: 'Country, two letters',
  trade: 'Trade, as it is coded there',
  place: 'Place, as it is coded there',
} as const
type ValueName = keyof typeof VALUES

const NEEDED: Record<InputSet, readonly ValueName[]> = {
  profile: ['profile'],
  'name-and-company': ['name', 'company'],
  'name-and-domain': ['name', 'domain'],
  email: ['email'],
  number: ['number'],
  'trade-and-place': ['trade', 'place'],
}

/** The values a service can be told. */
const valuesFor = ({ accepts }: ConnectorDocument): ValueName[] => [
  ...new Set([...accepts.flatMap((set) => NEEDED[set]), 'country' as const]),
]

/** The most one question can cost, in millionths of a euro. */
function mostOf(document: ConnectorDocument): number {
  const { id, gives, accepts, charge, mostCandidates } = document
  return mostCost({ id, gives, accepts, charge: { per: charge.per, amount: priceOf(document) }, mostCandidates }, 0)
}

/** Asks a service once, as it is declared now, and shows everything of it but the key. */
export function TryConnector({ provider, draft, hasKey }: { provider: string; draft: Draft; hasKey: boolean }) {
  const [values, setValues] = useState<Partial<Record<ValueName, string>>>({})
  const [key, setKey] = useState('')
  const [ask, { data, error, isLoading }] = useTryConnectorMutation()
  if (draft.status === 'wrong')
    return (
      <section aria-label="Try it" className="border-l border-line pl-6">
        <h2>Try it</h2>
        <p className="pt-1 text-soft">Once the connector is whole, it can be asked one question here.</p>
      </section>
    )
  const { document } = draft
  const submit = () =>
    void ask({
      params: { provider: provider === 'new' ? document.id : provider },
      body: { document, values, ...(key ? { key } : {}) },
    })
  return (
    <section aria-label="Try it" className="flex flex-col gap-3 border-l border-line pl-6">
      <h2>Try it</h2>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        {valuesFor(document).map((name) => (
          <TextField
            key={name}
            label={VALUES[name]}
            value={values[name] ?? ''}
            onChange={(event) => setValues({ ...values, [name]: event.target.value })}
          />
        ))}
        {hasKey ? null : (
          <TextField
            label="Key"
            type="password"
            autoComplete="off"
            required
            value={key}
            onChange={(event) => setKey(event.target.value)}
            hint="For this question only: it is not kept."
          />
        )}
        <Button type="submit" disabled={isLoading}>
          {isLoading ? 'Asking …' : `Ask once · at most ${money(mostOf(document))}`}
        </Button>
      </form>
      <Refused by={[{ error }]} />
      {data ? <Tried tried={data} /> : null}
    </section>
  )
}

function Tried({ tried }: { tried: ConnectorTried }) {
  const { request, status, raw, items, problem, isLater, charged } = tried
  return (
    <div className="flex flex-col gap-2" role="status">
      <h3>What was made of it</h3>
      {problem ? <Notice tone="bad">{JOB_PROBLEM[problem] ?? problem}</Notice> : null}
      {isLater ? <p>The question was taken. The answer comes later; a fill waits for it.</p> : null}
      {!problem && !isLater && items.length === 0 ? <p>Nothing was found.</p> : null}
      {items.map((item, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: items are never reordered
        <dl key={i} className="grid grid-cols-[110px_minmax(0,1fr)] border-t border-line pt-1">
          {Object.entries(item).map(([field, value]) => (
            <div key={field} className="contents">
              <dt className="text-soft">{field}</dt>
              <dd className="num break-all">{String(value)}</dd>
            </div>
          ))}
        </dl>
      ))}
      <p className="text-soft">{charged > 0 ? `${money(charged)} charged.` : 'Nothing charged.'}</p>
      <h3>What was sent, without the key</h3>
      <Raw text={`${request.method} ${request.url}${request.body ? `\n\n${request.body}` : ''}`} />
      <h3>What came back{status === null ? '' : `, ${status}`}</h3>
      <Raw text={raw || (status === null ? 'Nothing.' : 'An empty answer.')} />
    </div>
  )
}

const Raw = ({ text }: { text: string }) => (
  <pre
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must do so by keyboard
    tabIndex={0}
    className="num max-h-48 overflow-auto whitespace-pre-wrap break-all rounded-small border border-line bg-surface p-2 text-[12.5px]"
  >
    {text}
  </pre>
)
