import type { Account, Audience, DestinationDocument } from '@upper-field/contract'
import { PURPOSES, type Purpose, type Takes } from '@upper-field/core/send'
import { useState } from 'react'
import { useReadDestinationsQuery, useReadSegmentsQuery, useReadSuppressionListsQuery } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField, TextField } from '../kit/Field'
import { Answer, Refused, together } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { AccountChoice } from './AccountChoice'
import { useMakeAudienceMutation, useReadAudiencesQuery, useReadDestinationKeysQuery } from './audienceApi'
import { PURPOSE } from './audienceText'
import { EverybodyMeant } from './EverybodyMeant'

interface NewAudienceDialogProps {
  readonly onClose: () => void
  readonly onMade: (audienceId: string) => void
}

/** An audience is made in one place: where it goes, to which account, what it is for, and who is in it. */
export function NewAudienceDialog({ onClose, onMade }: NewAudienceDialogProps) {
  const { listId } = useListView()
  const known = together({
    destinations: useReadDestinationsQuery({}),
    keys: useReadDestinationKeysQuery({}),
    made: useReadAudiencesQuery({ params: { listId } }),
  })
  // It opens with what it has to show: the first field has the focus then.
  if (known.data === undefined && !known.error) return null
  return (
    <Dialog title="An audience" isOpen onClose={onClose} isWide>
      <Answer of={known} what="where an audience can go">
        {({ destinations, keys, made }) => {
          const called = destinations.filter((one) => one.network && keys.some((key) => key.destination === one.id))
          return called.length === 0 ? (
            <p className="text-soft">
              No network has a key yet. An owner gives one under Destinations; until then a file can be made for it.
            </p>
          ) : (
            <Form destinations={called} made={made} onClose={onClose} onMade={onMade} />
          )
        }}
      </Answer>
    </Dialog>
  )
}

interface FormProps extends NewAudienceDialogProps {
  readonly destinations: readonly DestinationDocument[]
  readonly made: readonly Audience[]
}

function Form({ destinations, made, onClose, onMade }: FormProps) {
  const { listId, text } = useListView()
  const { data: segments = [] } = useReadSegmentsQuery({ params: { listId } })
  const { data: suppressionLists = [] } = useReadSuppressionListsQuery({})
  const [where, setWhere] = useState(`${destinations[0]?.id}/${destinations[0]?.audiences[0]?.takes}`)
  const [id = '', takes = 'people'] = where.split('/') as [string, Takes]
  const destination = destinations.find((one) => one.id === id)
  const [account, setAccount] = useState<Account | null>(null)
  const [purpose, setPurpose] = useState<Purpose>('aim')
  const [name, setName] = useState('')
  const [who, setWho] = useState(text)
  const [customers, setCustomers] = useState('')
  const [within, setWithin] = useState('')
  const [keepsDays, setKeepsDays] = useState('')
  const [isMeant, setIsMeant] = useState(false)
  const [make, making] = useMakeAudienceMutation()
  const outer = made.filter(
    (one) =>
      takes === 'people' && one.destination === id && one.takes === 'companies' && one.account.id === account?.id,
  )
  // What was chosen before and is no longer to be chosen is not meant any more.
  const purposes = PURPOSES.filter((one) => destination?.network?.purposes[one])
  const meant = purposes.includes(purpose) ? purpose : (purposes[0] ?? 'aim')
  const excluded = meant === 'exclude' ? customers : ''
  const inside = outer.some((one) => one.id === within) ? within : ''
  const submit = async () => {
    if (!account || !destination) return
    const { data } = await make({
      params: { listId },
      body: {
        name,
        destination: id,
        takes,
        form: destination.hashing === 'never' ? 'plain' : 'hashed',
        purpose: meant,
        account: { id: account.id, name: account.name },
        filter: excluded === '' ? who : '',
        suppressionListId: excluded === '' ? null : excluded,
        within: inside === '' ? null : inside,
        keepsDays: keepsDays === '' || !destination.lapsesAfterDays ? null : Number(keepsDays),
        isWholeList: isMeant,
      },
    })
    if (data) onMade(data.id)
  }
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        void submit()
      }}
    >
      <SelectField
        label="Where it is kept"
        value={where}
        onChange={(event) => {
          setWhere(event.target.value)
          setAccount(null)
          setWithin('')
        }}
      >
        {destinations.flatMap((one) =>
          one.audiences.map((shape) => (
            <option key={`${one.id}/${shape.takes}`} value={`${one.id}/${shape.takes}`}>
              {one.name}
              {one.audiences.length > 1 ? `, ${shape.takes}` : ''}
            </option>
          )),
        )}
      </SelectField>
      <SelectField label="What it is for" value={meant} onChange={(e) => setPurpose(e.target.value as Purpose)}>
        {purposes.map((one) => (
          <option key={one} value={one}>
            {PURPOSE[one]}
          </option>
        ))}
      </SelectField>
      {destination ? (
        <AccountChoice
          key={id}
          destination={destination}
          purpose={meant}
          chosen={account}
          remembered={made.find((one) => one.destination === id)?.account.id ?? null}
          onChoose={setAccount}
        />
      ) : null}
      {outer.length > 0 ? (
        <SelectField label="Inside an audience of companies" value={inside} onChange={(e) => setWithin(e.target.value)}>
          <option value="">no</option>
          {outer.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      {meant === 'exclude' && suppressionLists.length > 0 ? (
        <SelectField label="Whom to exclude" value={customers} onChange={(event) => setCustomers(event.target.value)}>
          <option value="">contacts of this list</option>
          {suppressionLists.map((one) => (
            <option key={one.id} value={one.id}>
              everybody on {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      {excluded === '' ? (
        <TextField
          label="Who is in it"
          value={who}
          list="segments-of-list"
          placeholder="everybody of the list"
          onChange={(event) => setWho(event.target.value)}
          hint={
            segments.length > 0
              ? `A filter, or a segment: ${segments.map((one) => one.name).join(', ')}. Parked contacts are never in it.`
              : 'A filter, as it is typed above. Parked contacts are never in it.'
          }
        />
      ) : null}
      <datalist id="segments-of-list">
        {segments.map((one) => (
          <option key={one.id} value={one.filter}>
            {one.name}
          </option>
        ))}
      </datalist>
      {destination?.lapsesAfterDays ? (
        <TextField
          label="Days that somebody stays"
          type="number"
          min={1}
          max={destination.lapsesAfterDays}
          value={keepsDays}
          placeholder={String(destination.lapsesAfterDays)}
          onChange={(event) => setKeepsDays(event.target.value)}
        />
      ) : null}
      <TextField
        label="Name"
        required
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
        hint="With {month} or {date} in it, it is dated by its edition."
      />
      <Refused by={[making]} />
      <EverybodyMeant problem={making.error} isMeant={isMeant} onChange={setIsMeant} />
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button look="main" type="submit" disabled={account === null || name.trim() === '' || making.isLoading}>
          Make the audience
        </Button>
      </div>
    </form>
  )
}
