import type { DestinationDocument, Preflight } from '@upper-field/contract'
import type { Takes } from '@upper-field/core/send'
import { useState } from 'react'
import { useMakeEditionMutation, usePreflightQuery, useReadDestinationsQuery } from '../api'
import { Button } from '../kit/Button'
import { SelectField } from '../kit/Field'
import { Loading, Notice } from '../kit/Notice'
import { useMayChange } from '../people/useRole'
import { Refused, Unanswered, unlessGone } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { count, estimateSign, plural } from '../words/format'
import { SEND_FIELD } from '../words/sentences'
import { FindingDialog } from './FindingDialog'
import { identifiersText } from './identifiersText'
import { PeopleFile } from './PeopleFile'

/** What a destination would refuse or waste, what is mended, and the acts that make a file. */
export function PreflightPanel() {
  const { data: destinations } = useReadDestinationsQuery({})
  const [chosen, setChosen] = useState('')
  if (!destinations) return <Loading what="the destinations" />
  const [id = '', takes = ''] = chosen.split('/')
  const destination = destinations.find((one) => one.id === id) ?? destinations[0]
  if (!destination) return <PeoplePanel />
  const shape = destination.audiences.find((one) => one.takes === takes) ?? destination.audiences[0]
  if (!shape) return <PeoplePanel />
  const choices = destinations.flatMap((one) => one.audiences.map((audience) => [one, audience.takes] as const))
  return (
    <>
      <SelectField
        label="Audience for"
        value={`${destination.id}/${shape.takes}`}
        onChange={(event) => setChosen(event.target.value)}
      >
        {choices.map(([one, kind]) => (
          <option key={`${one.id}/${kind}`} value={`${one.id}/${kind}`}>
            {one.name}
            {one.audiences.length > 1 ? `, ${kind}` : ''}
          </option>
        ))}
      </SelectField>
      <AudiencePanel key={`${destination.id}/${shape.takes}`} destination={destination} takes={shape.takes} />
    </>
  )
}

/** Where no destination is there: a file for people. */
function PeoplePanel() {
  const { text } = useListView()
  const mayChange = useMayChange()
  return (
    <div className="flex flex-col gap-3">
      <h2>A file for people</h2>
      <p className="text-soft">
        Everybody chosen{text === '' ? '' : ' by the filter'}, with all that is known of them; parked and suppressed
        ones are never in it. No destination is there for an audience.
      </p>
      {mayChange ? (
        <PeopleFile isMain isOff={false} />
      ) : (
        <p className="text-soft">Operators prepare and download it.</p>
      )}
    </div>
  )
}

function AudiencePanel({ destination, takes }: { destination: DestinationDocument; takes: Takes }) {
  const { listId, text } = useListView()
  const mayChange = useMayChange()
  const [exact, setExact] = useState<'yes' | 'no'>('no')
  const query = { filter: text, destination: destination.id, takes, exact }
  const asked = usePreflightQuery({ params: { listId }, query })
  const { currentData, isFetching } = asked
  const flight = unlessGone(asked, asked.data)
  const [make, making] = useMakeEditionMutation()
  const [form, setForm] = useState<'hashed' | 'plain'>(destination.hashing === 'never' ? 'plain' : 'hashed')
  if (!flight) return <Unanswered of={[asked]} what="the preflight" />
  const sign = estimateSign(flight.lookedAt !== null)
  const one = takes === 'people' ? 'person' : 'company'
  return (
    <div className="flex flex-col gap-3 pt-3" aria-busy={isFetching}>
      <Refused by={[asked]} />
      <p className="text-soft">
        {sign}
        {plural(flight.chosen, 'contact')} chosen{text === '' ? '' : ' by the filter'}; parked ones are never sent.
      </p>
      {flight.lookedAt === null ? null : (
        <p className="text-soft">
          Estimated from {count(flight.lookedAt)} of them, spread over the list.{' '}
          <button type="button" className="underline" disabled={isFetching} onClick={() => setExact('yes')}>
            {isFetching ? 'Counting everybody …' : 'Count everybody'}
          </button>
        </p>
      )}
      <Findings flight={flight} />
      <SizeNotices flight={flight} />
      {destination.hashing === 'either' ? <FormChoice form={form} onChange={setForm} /> : null}
      {form === 'plain' ? (
        <p className="text-[13px] text-soft">
          A cell that a spreadsheet would take for a formula gets an apostrophe in front. Numbers stay exactly as they
          are compared.
        </p>
      ) : null}
      <Refused by={[making]} />
      {mayChange ? (
        <>
          <Button
            look="main"
            disabled={flight.ready === 0 || currentData === undefined || making.isLoading}
            onClick={() =>
              void make({ params: { listId }, body: { destination: destination.id, takes, form, filter: text } })
            }
          >
            Prepare {sign}
            {plural(flight.ready, one, takes)} for {destination.name}
          </Button>
          <PeopleFile isMain={false} isOff={flight.chosen === 0} />
        </>
      ) : (
        <p className="text-soft">Viewers see what would be sent; operators prepare and download it.</p>
      )}
    </div>
  )
}

/** Each rule with how many rows break it, what is mended by itself, and what cannot be; each count opens its records. */
function Findings({ flight }: { flight: Preflight }) {
  const [opened, setOpened] = useState<{ readonly finding: string; readonly name: string } | null>(null)
  const line = (finding: string, name: string, n: number, tone: keyof typeof TONE, more: string) => (
    <Line
      key={finding}
      name={name}
      n={n}
      sign={estimateSign(flight.lookedAt !== null)}
      tone={tone}
      more={more}
      onOpen={n === 0 ? null : () => setOpened({ finding, name })}
    />
  )
  const { name, suppressed, countryFromNumber, codeMended } = flight
  return (
    <>
      <dl>
        {line('ready', 'Ready to send', flight.ready, 'good', identifiersText(flight))}
        {flight.missing.map(({ field, n }) =>
          line(
            `missing ${field}`,
            `Without a ${SEND_FIELD[field]}`,
            n,
            'bad',
            `left out: ${name} wants one on every row`,
          ),
        )}
        {line('nothing-to-match', 'Nothing to match by', flight.nothingToMatch, 'bad', 'left out, still in the list')}
        {suppressed > 0
          ? line('suppressed', 'Suppressed for ads', suppressed, 'bad', 'left out, by a suppression list')
          : null}
        {countryFromNumber > 0
          ? line('country-from-number', 'Country taken from the number', countryFromNumber, 'told', 'mended')
          : null}
        {codeMended > 0
          ? line(
              'code-mended',
              'Numbers without a country code',
              codeMended,
              'told',
              'mended: the code of the contact’s country',
            )
          : null}
        {flight.leftBlank.map(({ fields, n }) =>
          line(
            `blank ${fields.join(' ')}`,
            `Not whole: ${fields.map((field) => SEND_FIELD[field]).join(', ')}`,
            n,
            'told',
            `left blank: ${name} wants all of them, or none`,
          ),
        )}
        {flight.unreadable.map(({ field, n }) =>
          line(
            `unreadable ${field}`,
            `Not what its form asks for: ${SEND_FIELD[field]}`,
            n,
            'told',
            'left blank, nothing is hashed of it',
          ),
        )}
      </dl>
      {opened ? <FindingDialog flight={flight} {...opened} onClose={() => setOpened(null)} /> : null}
    </>
  )
}

/** The size an audience needs, where it may be too small. */
function SizeNotices({ flight: { name, ready, fewest, fewestMatched, toldFrom } }: { flight: Preflight }) {
  return (
    <>
      {fewest !== null && ready < fewest ? (
        <Notice tone="bad">
          {name} takes no file of fewer than {count(fewest)} rows.
        </Notice>
      ) : null}
      {fewestMatched !== null && ready < fewestMatched ? (
        <Notice tone="bad">
          {name} wants {count(fewestMatched)} matched people; fewer than that are in it.
        </Notice>
      ) : null}
      {toldFrom !== null && ready < toldFrom ? (
        <Notice tone="look">
          {name} does not tell the size of audiences under {count(toldFrom)} matched people.
        </Notice>
      ) : null}
    </>
  )
}

function FormChoice({ form, onChange }: { form: 'hashed' | 'plain'; onChange: (form: 'hashed' | 'plain') => void }) {
  return (
    <fieldset className="flex gap-4">
      <legend className="pb-1 font-semibold">Identifiers</legend>
      {(['hashed', 'plain'] as const).map((one) => (
        <label key={one} className="flex items-center gap-1.5">
          <input
            type="radio"
            name="form"
            checked={form === one}
            onChange={() => onChange(one)}
            className="accent-moss"
          />
          {one === 'hashed' ? 'hashed (SHA-256)' : 'plain'}
        </label>
      ))}
    </fieldset>
  )
}

const TONE = { good: 'text-moss', bad: 'text-beet', told: '' } as const

interface LineProps {
  readonly name: string
  readonly n: number
  /** Before an estimate. */
  readonly sign: string
  readonly tone: keyof typeof TONE
  readonly more: string
  readonly onOpen: (() => void) | null
}

const Line = ({ name, n, sign, tone, more, onOpen }: LineProps) => (
  <div className="flex items-baseline justify-between gap-3 border-t border-line py-1.5">
    <dt>
      {name}
      <span className="block text-[13px] text-soft">{more}</span>
    </dt>
    <dd className={`num font-semibold ${n === 0 ? 'text-soft' : TONE[tone]}`}>
      {onOpen ? (
        <button type="button" aria-label={`${name}: show ${count(n)}`} className="underline" onClick={onOpen}>
          {sign}
          {count(n)}
        </button>
      ) : // Of a few that were looked at, none is not nobody.
      sign === '' ? (
        count(n)
      ) : (
        'none seen'
      )}
    </dd>
  </div>
)
