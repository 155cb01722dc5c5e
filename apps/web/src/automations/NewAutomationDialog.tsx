import type { Audience, AutomationStep, BodyOf } from '@upper-field/contract'
import { AUTOMATION_STARTS, AUTOMATION_WORK } from '@upper-field/contract'
import { type FormEvent, useState } from 'react'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField, TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { useMakeAutomationMutation } from './automationApi'
import { START_TEXT, WORK_TEXT } from './automationText'

const MICROS = 1_000_000
/** What costs money is asked for how much. */
const COSTS: ReadonlySet<AutomationStep['work']> = new Set(['check', 'fill'])
type Start = BodyOf<'makeAutomation'>['start']

/** When something begins by itself, and what is done then, in the order of the stages. */
export function NewAutomationDialog(props: {
  listId: string
  audiences: readonly Pick<Audience, 'id' | 'name'>[]
  onClose: () => void
}) {
  const { listId, audiences, onClose } = props
  const [make, made] = useMakeAutomationMutation()
  const [start, setStart] = useState<Start>('batch-ready')
  const [hour, setHour] = useState('6')
  const [works, setWorks] = useState<ReadonlySet<AutomationStep['work']>>(new Set(['pair']))
  const [amounts, setAmounts] = useState<Readonly<Record<string, string>>>({})
  const [audienceId, setAudienceId] = useState(audiences[0]?.id ?? '')
  const toggle = (work: AutomationStep['work']) => {
    const next = new Set(works)
    if (!next.delete(work)) next.add(work)
    setWorks(next)
  }
  const send = async (event: FormEvent) => {
    event.preventDefault()
    const steps = AUTOMATION_WORK.filter((work) => works.has(work)).map((work) => ({
      work,
      amount: COSTS.has(work) ? Math.round(Number(amounts[work] ?? 0) * MICROS) : 0,
      audienceId: work === 'send' && audienceId !== '' ? audienceId : null,
    }))
    const done = await make({ params: { listId }, body: { start, hour: Number(hour), steps } })
    if (done.data) onClose()
  }
  return (
    <Dialog title="A new automation" isOpen onClose={onClose} isWide>
      <form className="flex flex-col gap-3" onSubmit={send}>
        <div className="grid grid-cols-[2fr_1fr] gap-3">
          <SelectField label="It begins" value={start} onChange={(event) => setStart(event.target.value as Start)}>
            {AUTOMATION_STARTS.map((one) => (
              <option key={one} value={one}>
                {START_TEXT[one].toLowerCase()}
              </option>
            ))}
          </SelectField>
          {start === 'day' ? (
            <TextField
              label="Hour, UTC"
              type="number"
              min={0}
              max={23}
              value={hour}
              onChange={(event) => setHour(event.target.value)}
            />
          ) : null}
        </div>
        <fieldset>
          <legend className="pb-1 font-semibold">What is done then, in this order</legend>
          {AUTOMATION_WORK.map((work) => (
            <div key={work} className="flex min-h-9 items-center gap-3">
              <label className="flex flex-1 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-moss"
                  checked={works.has(work)}
                  disabled={work === 'send' && audiences.length === 0}
                  onChange={() => toggle(work)}
                />
                <span className="first-letter:uppercase">{WORK_TEXT[work]}</span>
              </label>
              {COSTS.has(work) && works.has(work) ? (
                <label className="flex items-center gap-2 text-[13px]">
                  at most €
                  <input
                    type="number"
                    min={0}
                    step="0.01"
                    aria-label={`Most that “${WORK_TEXT[work]}” may spend each time, in euros`}
                    className="num w-24 rounded-small border border-edge bg-surface px-2 py-1"
                    value={amounts[work] ?? ''}
                    onChange={(event) => setAmounts({ ...amounts, [work]: event.target.value })}
                  />
                </label>
              ) : null}
              {work === 'send' && works.has(work) ? (
                <select
                  aria-label="Which audience"
                  className="min-h-8 rounded-small border border-edge bg-surface px-2"
                  value={audienceId}
                  onChange={(event) => setAudienceId(event.target.value)}
                >
                  {audiences.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              ) : null}
            </div>
          ))}
        </fieldset>
        <Refused by={[made]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="main" disabled={works.size === 0 || made.isLoading}>
            Switch it on
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
