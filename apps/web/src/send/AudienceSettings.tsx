import type { AudienceDetail } from '@upper-field/contract'
import { useState } from 'react'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { count } from '../words/format'
import { useChangeAudienceMutation, useRemoveAudienceMutation } from './audienceApi'
import { EverybodyMeant } from './EverybodyMeant'

interface AudienceSettingsProps {
  readonly audience: AudienceDetail
  readonly onClose: () => void
  readonly onGone: () => void
}

/** What an audience is made of and when it wants refreshing; and taking it away. */
export function AudienceSettings({ audience, onClose, onGone }: AudienceSettingsProps) {
  const [name, setName] = useState(audience.name)
  const [filter, setFilter] = useState(audience.filter)
  const [refreshDays, setRefreshDays] = useState(String(audience.refreshDays))
  const [removesByItself, setRemovesByItself] = useState(audience.removesByItself)
  const [isMeant, setIsMeant] = useState(false)
  const [isLeaving, setIsLeaving] = useState(false)
  const [change, changing] = useChangeAudienceMutation()
  const [remove, removing] = useRemoveAudienceMutation()
  const submit = async () => {
    const body = {
      name,
      refreshDays: Number(refreshDays),
      removesByItself,
      ...(filter === audience.filter ? {} : { filter, isWholeList: isMeant }),
    }
    const { error } = await change({ params: { audienceId: audience.id }, body })
    if (!error) onClose()
  }
  const takeAway = async () => {
    const { error } = await remove({ params: { audienceId: audience.id } })
    if (error) return
    onClose()
    onGone()
  }
  return (
    <Dialog title={`Change ${audience.name}`} isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <TextField label="Name" required maxLength={120} value={name} onChange={(e) => setName(e.target.value)} />
        {audience.suppressionListId === null && !audience.similarTo ? (
          <TextField
            label="Who is in it"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            hint="A filter, as it is typed above. The next edition goes by it."
          />
        ) : null}
        <TextField
          label="Refresh every … days"
          type="number"
          min={1}
          max={365}
          value={refreshDays}
          onChange={(event) => setRefreshDays(event.target.value)}
        />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-moss"
            checked={removesByItself}
            onChange={(event) => setRemovesByItself(event.target.checked)}
          />
          Whoever says no is taken out by itself within a day
        </label>
        <Refused by={[changing]} />
        <EverybodyMeant problem={changing.error} isMeant={isMeant} onChange={setIsMeant} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={changing.isLoading}>
            Keep
          </Button>
        </div>
      </form>
      <div className="mt-4 border-t border-line pt-3">
        {isLeaving ? (
          <div className="flex flex-col gap-2">
            <p>
              {audience.people > 0
                ? `${count(audience.people)} leave ${audience.account.name} with it. Its deliveries stay in the story of the list.`
                : 'Nothing was sent of it.'}
            </p>
            <Refused by={[removing]} />
            <Button look="danger" disabled={removing.isLoading} onClick={() => void takeAway()}>
              Take the audience away
            </Button>
          </div>
        ) : (
          <TextButton onClick={() => setIsLeaving(true)}>Take it away, at the network too</TextButton>
        )}
      </div>
    </Dialog>
  )
}
