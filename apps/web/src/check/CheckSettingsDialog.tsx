import type { CheckSettings } from '@upper-field/contract'
import { AGES_AS, type AgesAs } from '@upper-field/core/check'
import { useState } from 'react'
import { useChangeCheckSettingsMutation } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextArea, TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { budgetOf, eurosOf } from '../words/budget'
import { readHours, writeHours } from './hoursText'

const AGES: Readonly<Record<AgesAs, string>> = {
  mobile: 'Mobile in service',
  'other-line': 'Another line in service',
  'out-of-service': 'Line out of service',
  unreachable: 'Line unreachable',
  deliverable: 'Address that takes mail',
  'accept-all': 'Host that takes everything',
  undeliverable: 'Address that takes none',
  'do-not-call': 'Word of a do-not-call register',
}

const isDays = (text: string): boolean => /^\d{1,4}$/.test(text.trim()) && Number(text) <= 3650

/** How long answers of each kind keep, and what a message costs: for all lists. */
export function CheckSettingsDialog({ settings, onClose }: { settings: CheckSettings; onClose: () => void }) {
  const [days, setDays] = useState<Record<AgesAs, string>>(
    () => Object.fromEntries(AGES_AS.map((kind) => [kind, String(settings.freshDays[kind])])) as Record<AgesAs, string>,
  )
  const [text, setText] = useState(() => eurosOf(settings.textPrice))
  const [mail, setMail] = useState(() => eurosOf(settings.mailPrice))
  const [hoursText, setHoursText] = useState(writeHours(settings.callHours))
  const [change, { error, isLoading }] = useChangeCheckSettingsMutation()
  const [textPrice, mailPrice] = [budgetOf(text), budgetOf(mail)]
  const read = readHours(hoursText)
  const isRight =
    'hours' in read && textPrice !== null && mailPrice !== null && AGES_AS.every((kind) => isDays(days[kind]))
  const keep = async () => {
    if (!isRight || !('hours' in read)) return
    const freshDays = Object.fromEntries(
      AGES_AS.map((kind) => [kind, Number(days[kind])]),
    ) as CheckSettings['freshDays']
    const changed = await change({ body: { freshDays, textPrice, mailPrice, callHours: read.hours } })
    if (!changed.error) onClose()
  }
  return (
    <Dialog title="Prices, hours, and how long answers keep" isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void keep()
        }}
      >
        <p className="text-soft">An answer younger than this is never bought again. In days, for all lists.</p>
        <div className="grid grid-cols-2 gap-x-4 gap-y-2">
          {AGES_AS.map((kind) => (
            <TextField
              key={kind}
              label={AGES[kind]}
              inputMode="numeric"
              value={days[kind]}
              onChange={(event) => setDays({ ...days, [kind]: event.target.value })}
              error={isDays(days[kind]) ? undefined : 'Whole days, from 0 to 3,650.'}
            />
          ))}
          <TextField
            label="A text message, in euros"
            inputMode="decimal"
            value={text}
            onChange={(event) => setText(event.target.value)}
            error={textPrice === null ? 'A sum above 0, such as 0.07.' : undefined}
          />
          <TextField
            label="An e-mail, in euros"
            inputMode="decimal"
            value={mail}
            onChange={(event) => setMail(event.target.value)}
            error={mailPrice === null ? 'A sum above 0, such as 0.001.' : undefined}
          />
        </div>
        <TextArea
          label="Hours for calls, there"
          rows={3}
          value={hoursText}
          onChange={(event) => setHoursText(event.target.value)}
          error={'problem' in read ? read.problem : undefined}
          hint="A line for each country; public holidays are left out."
        />
        <Refused by={[{ error }]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={!isRight || isLoading}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
