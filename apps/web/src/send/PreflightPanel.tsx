import { useState } from 'react'
import { problemText, useMakeEditionMutation, usePreflightQuery, useReadMeQuery } from '../api'
import { useHasNetwork } from '../connections/useConnected'
import { Button } from '../kit/Button'
import { Loading, Notice } from '../kit/Notice'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'

/** What Brassbell would refuse or waste, what is mended, and the acts that make a file. */
export function PreflightPanel() {
  return useHasNetwork() ? <AudiencePanel /> : <PeoplePanel />
}

/** Where no network is connected: a file for people. */
function PeoplePanel() {
  const { listId, text } = useListView()
  const { data: me } = useReadMeQuery({})
  const [make, making] = useMakeEditionMutation()
  return (
    <div className="flex flex-col gap-3">
      <h2>A file for people</h2>
      <p className="text-soft">
        Everybody chosen{text === '' ? '' : ' by the filter'}, with all that is known of them; parked and suppressed
        ones are never in it. No ad network is connected.
      </p>
      {making.error ? <Notice tone="bad">{problemText(making.error)}</Notice> : null}
      {me?.role === 'viewer' ? (
        <p className="text-soft">Operators prepare and download it.</p>
      ) : (
        <Button
          look="main"
          disabled={making.isLoading}
          onClick={() =>
            void make({ params: { listId }, body: { destination: 'people', form: 'people', filter: text } })
          }
        >
          Write a file for people
        </Button>
      )}
    </div>
  )
}

function AudiencePanel() {
  const { listId, text } = useListView()
  const { data: me } = useReadMeQuery({})
  const { data: flight, error, isFetching } = usePreflightQuery({ params: { listId }, query: { filter: text } })
  const [make, making] = useMakeEditionMutation()
  const [form, setForm] = useState<'hashed' | 'plain'>('hashed')
  if (error) return <Notice tone="bad">{problemText(error)}</Notice>
  if (!flight) return <Loading what="the preflight" />
  const mayMake = me?.role !== 'viewer'
  return (
    <div className="flex flex-col gap-3" aria-busy={isFetching}>
      <div>
        <h2>An audience for Brassbell</h2>
        <p className="text-soft">
          {plural(flight.chosen, 'contact')} chosen{text === '' ? '' : ' by the filter'}; parked ones are never sent.
        </p>
      </div>
      <dl>
        <Line name="Ready to send" n={flight.ready} tone="good" more="a country, and a number or e-mail" />
        <Line
          name="Without a country"
          n={flight.noCountry}
          tone="bad"
          more="left out: Brassbell wants one on every row"
        />
        <Line name="No usable identifier" n={flight.noIdentifier} tone="bad" more="left out, still in the list" />
        <Line name="Country taken from the number" n={flight.countryFromNumber} tone="told" more="mended" />
        <Line
          name="Numbers without a country code"
          n={flight.codeMended}
          tone="told"
          more="mended: the code of the contact’s country"
        />
        <Line
          name="Empty numbers left empty"
          n={flight.emptyNumbers}
          tone="told"
          more="nothing is put before, or hashed of, an empty cell"
        />
      </dl>
      {flight.ready < flight.sizeFloor ? (
        <Notice tone="look">
          Brassbell does not tell the size of audiences under {count(flight.sizeFloor)} matched people.
        </Notice>
      ) : null}
      <fieldset className="flex gap-4">
        <legend className="pb-1 font-semibold">Identifiers</legend>
        {(['hashed', 'plain'] as const).map((one) => (
          <label key={one} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="form"
              checked={form === one}
              onChange={() => setForm(one)}
              className="accent-moss"
            />
            {one === 'hashed' ? 'hashed (SHA-256)' : 'plain'}
          </label>
        ))}
      </fieldset>
      {form === 'plain' ? (
        <p className="text-[13px] text-soft">
          A cell that a spreadsheet would take for a formula gets an apostrophe in front. Numbers stay exactly as they
          are compared.
        </p>
      ) : null}
      {making.error ? <Notice tone="bad">{problemText(making.error)}</Notice> : null}
      {mayMake ? (
        <>
          <Button
            look="main"
            disabled={flight.ready === 0 || making.isLoading}
            onClick={() => void make({ params: { listId }, body: { destination: 'brassbell', form, filter: text } })}
          >
            Prepare {plural(flight.ready, 'person', 'people')} for Brassbell
          </Button>
          <Button
            disabled={flight.chosen === 0 || making.isLoading}
            onClick={() =>
              void make({ params: { listId }, body: { destination: 'people', form: 'people', filter: text } })
            }
          >
            Write a file for people instead
          </Button>
        </>
      ) : (
        <p className="text-soft">Viewers see what would be sent; operators prepare and download it.</p>
      )}
    </div>
  )
}

const TONE = { good: 'text-moss', bad: 'text-beet', told: '' } as const

const Line = ({ name, n, tone, more }: { name: string; n: number; tone: keyof typeof TONE; more: string }) => (
  <div className="flex items-baseline justify-between gap-3 border-t border-line py-1.5">
    <dt>
      {name}
      <span className="block text-[13px] text-soft">{more}</span>
    </dt>
    <dd className={`num font-semibold ${n === 0 ? 'text-soft' : TONE[tone]}`}>{count(n)}</dd>
  </div>
)
