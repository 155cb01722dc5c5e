import type { AudienceDetail, DestinationDocument } from '@upper-field/contract'
import { useState } from 'react'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'
import { useMakeSimilarMutation, useReadAudiencesQuery, useStartTrialMutation } from './audienceApi'
import { forecastText } from './audienceText'

const TRIAL: Readonly<Record<AudienceDetail['trials'][number]['state'], string>> = {
  on: 'On',
  over: 'Over',
  failed: 'No longer known there',
}

interface TrialsProps {
  readonly audience: AudienceDetail
  readonly network: DestinationDocument['network']
  readonly mayChange: boolean
}

/** Small campaigns that tell how many match, and larger audiences of similar people. */
export function Trials({ audience, network, mayChange }: TrialsProps) {
  const [open, setOpen] = useState<'trial' | 'similar' | null>(null)
  if (!network?.trial && !network?.similar) return null
  const isUsable = audience.state === 'usable'
  return (
    <section aria-label="Trials">
      {audience.trials.length > 0 ? <h3 className="pb-1 text-[14px]">Trials</h3> : null}
      <ul>
        {audience.trials.map((trial) => (
          <li key={trial.id} className="border-t border-line py-1.5">
            {TRIAL[trial.state]}: €{trial.daily} a day for {plural(trial.days, 'day')}
            {trial.exclude.length > 0 ? `, ${plural(trial.exclude.length, 'audience')} excluded` : ''}
            <span className="block text-[13px] text-soft">
              {trial.reach === null ? 'nothing told yet' : `reached ${plural(trial.reach, 'person', 'people')}`}
              {trial.spent === null ? '' : ` for €${trial.spent}`}
              {trial.inferred ? `: ${forecastText(trial.inferred)} are matched, inferred from that` : ''}
            </span>
          </li>
        ))}
      </ul>
      {mayChange && (network.trial || network.similar) ? (
        isUsable ? (
          <p className="flex gap-4 pt-1">
            {network.trial ? <TextButton onClick={() => setOpen('trial')}>Run a trial</TextButton> : null}
            {network.similar && !audience.similarTo ? (
              <TextButton onClick={() => setOpen('similar')}>Find similar people</TextButton>
            ) : null}
          </p>
        ) : (
          <p className="text-[13px] text-soft">A trial can be run once it is usable.</p>
        )
      ) : null}
      {open === 'trial' ? <TrialDialog audience={audience} onClose={() => setOpen(null)} /> : null}
      {open === 'similar' ? <SimilarDialog audience={audience} onClose={() => setOpen(null)} /> : null}
    </section>
  )
}

function TrialDialog({ audience, onClose }: { audience: AudienceDetail; onClose: () => void }) {
  const { listId } = useListView()
  const [daily, setDaily] = useState('10')
  const [days, setDays] = useState('3')
  const [exclude, setExclude] = useState<readonly string[]>([])
  const { data: all = [] } = useReadAudiencesQuery({ params: { listId } })
  const [start, starting] = useStartTrialMutation()
  const others = all.filter(
    ({ id, destination, account, people }) =>
      id !== audience.id && destination === audience.destination && account.id === audience.account.id && people > 0,
  )
  const most = Number(daily) * Number(days)
  const submit = async () => {
    const body = { daily: Number(daily), days: Number(days), exclude: [...exclude] }
    const { error } = await start({ params: { audienceId: audience.id }, body })
    if (!error) onClose()
  }
  return (
    <Dialog title={`A trial with ${audience.name}`} isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <p className="text-soft">
          A small campaign at {audience.account.name}. Whom it reaches tells how many are matched, where the network
          does not.
        </p>
        <TextField
          label="Euros a day"
          type="number"
          min={1}
          max={1000}
          value={daily}
          onChange={(e) => setDaily(e.target.value)}
        />
        <TextField label="Days" type="number" min={1} max={30} value={days} onChange={(e) => setDays(e.target.value)} />
        {others.length > 0 ? (
          <fieldset>
            <legend className="pb-1 font-semibold">Leave out</legend>
            {others.map(({ id, name, state }) => (
              <label key={id} className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  className="accent-moss"
                  disabled={state !== 'usable'}
                  checked={exclude.includes(id)}
                  onChange={(event) =>
                    setExclude(event.target.checked ? [...exclude, id] : exclude.filter((one) => one !== id))
                  }
                />
                {name}
                {state === 'usable' ? '' : <span className="text-[13px] text-soft">not usable yet</span>}
              </label>
            ))}
          </fieldset>
        ) : null}
        <Refused by={[starting]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={!(most > 0) || starting.isLoading}>
            Run it · at most €{count(most || 0)}
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

function SimilarDialog({ audience, onClose }: { audience: AudienceDetail; onClose: () => void }) {
  const [country, setCountry] = useState('GB')
  const [closeness, setCloseness] = useState('3')
  const [make, making] = useMakeSimilarMutation()
  const submit = async () => {
    const body = { country, closeness: Number(closeness), name: `Like ${audience.name}, ${country}`.slice(0, 120) }
    const { error } = await make({ params: { audienceId: audience.id }, body })
    if (!error) onClose()
  }
  return (
    <Dialog title={`People like ${audience.name}`} isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <p className="text-soft">The network looks for people like these in one country: the closer, the fewer.</p>
        <TextField
          label="Country"
          value={country}
          maxLength={2}
          pattern="[A-Z]{2}"
          required
          hint="Two letters"
          onChange={(event) => setCountry(event.target.value.toUpperCase())}
        />
        <TextField
          label="How wide, from 1 (closest) to 10"
          type="number"
          min={1}
          max={10}
          value={closeness}
          onChange={(event) => setCloseness(event.target.value)}
        />
        <Refused by={[making]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={making.isLoading}>
            Have them found
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
