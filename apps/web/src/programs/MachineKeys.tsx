import type { BodyOf, MachineCall, MachineKey } from '@upper-field/contract'
import { KEY_SCOPES } from '@upper-field/contract'
import { type FormEvent, useState } from 'react'
import { AskFirst } from '../kit/AskFirst'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Answer, Refused } from '../shell/Answer'
import { count, time } from '../words/format'
import {
  useMakeMachineKeyMutation,
  useReadMachineCallsQuery,
  useReadMachineKeysQuery,
  useRotateMachineKeyMutation,
  useWithdrawMachineKeyMutation,
} from './programApi'
import { budgetText, keyState, SCOPE_TEXT } from './programText'
import { ShownOnce } from './ShownOnce'

/** Keys of other programs: what each may do, how long, and when it was used last. */
export function MachineKeys({ isOwner }: { isOwner: boolean }) {
  const keys = useReadMachineKeysQuery({})
  const [rotate, rotating] = useRotateMachineKeyMutation()
  const [withdraw, withdrawing] = useWithdrawMachineKeyMutation()
  const [isMaking, setIsMaking] = useState(false)
  const [secret, setSecret] = useState<string | null>(null)
  const [open, setOpen] = useState<string | null>(null)
  const now = Date.now()
  return (
    <section aria-labelledby="keys">
      <div className="flex items-baseline justify-between pb-2">
        <h2 id="keys">Keys</h2>
        {isOwner ? (
          <Button look="main" onClick={() => setIsMaking(true)}>
            Make a key
          </Button>
        ) : null}
      </div>
      <Refused by={[rotating, withdrawing]} />
      <Answer
        of={keys}
        what="the keys"
        none={<p className="border-y border-line py-3 text-soft">No program has a key.</p>}
      >
        {(all) => (
          <ul>
            {all.map((key) => (
              <li key={key.id} className="border-b border-line py-2">
                <KeyLine
                  keyOf={key}
                  now={now}
                  isOpen={open === key.id}
                  isOwner={isOwner}
                  onOpen={() => setOpen(open === key.id ? null : key.id)}
                  onRotate={async () => {
                    const made = await rotate({ params: { keyId: key.id } })
                    if (made.data) setSecret(made.data.secret)
                  }}
                  onWithdraw={() => void withdraw({ params: { keyId: key.id } })}
                />
                {open === key.id ? <Calls keyId={key.id} /> : null}
              </li>
            ))}
          </ul>
        )}
      </Answer>
      {isMaking ? (
        <NewKey
          onClose={() => setIsMaking(false)}
          onMade={(made) => {
            setIsMaking(false)
            setSecret(made)
          }}
        />
      ) : null}
      {secret ? <ShownOnce title="The key" secret={secret} onClose={() => setSecret(null)} /> : null}
    </section>
  )
}

function KeyLine(props: {
  keyOf: MachineKey
  now: number
  isOpen: boolean
  isOwner: boolean
  onOpen: () => void
  onRotate: () => void
  onWithdraw: () => void
}) {
  const { keyOf, now, isOpen, isOwner, onOpen, onRotate, onWithdraw } = props
  const { text, isOver } = keyState(keyOf, now)
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <span className={`w-48 truncate font-semibold ${isOver ? 'text-soft line-through' : ''}`}>{keyOf.name}</span>
      <span className="num text-[13px] text-soft">{keyOf.start}…</span>
      <span className="flex-1">{keyOf.scopes.map((scope) => SCOPE_TEXT[scope][0]).join(', ')}</span>
      <span className={`text-[13px] ${isOver ? 'text-beet' : 'text-soft'}`}>{text}</span>
      <span className="w-full text-[13px] text-soft">
        {keyOf.lastUsedAt ? `used last ${time(keyOf.lastUsedAt)}` : 'never used'} · {count(keyOf.callsToday)} calls
        today · at most {count(keyOf.perMinute)} a minute · {budgetText(keyOf)} · made by {keyOf.madeBy}
        {'  '}
        <TextButton aria-expanded={isOpen} onClick={onOpen}>
          latest calls
        </TextButton>
        {isOwner && !isOver ? (
          <>
            {' · '}
            <AskFirst
              title={`A new secret for ${keyOf.name}?`}
              says="Whatever calls with the old one is refused from that moment on."
              does="Make a new secret"
              onDo={onRotate}
            >
              {(ask) => (
                <TextButton aria-label={`New secret for ${keyOf.name}`} onClick={ask}>
                  new secret
                </TextButton>
              )}
            </AskFirst>
            {' · '}
            <AskFirst
              title={`Withdraw ${keyOf.name}?`}
              says="Whatever calls with it is refused from that moment on, and it stays withdrawn."
              does="Withdraw it"
              onDo={onWithdraw}
            >
              {(ask) => (
                <TextButton aria-label={`Withdraw ${keyOf.name}`} onClick={ask}>
                  withdraw
                </TextButton>
              )}
            </AskFirst>
          </>
        ) : null}
      </span>
    </div>
  )
}

function Calls({ keyId }: { keyId: string }) {
  const calls = useReadMachineCallsQuery({ params: { keyId } })
  return (
    <Answer of={calls} what="its calls" none={<p className="pt-1 text-[13px] text-soft">It has not called yet.</p>}>
      {(all) => <CallTable calls={all} />}
    </Answer>
  )
}

function CallTable({ calls }: { calls: readonly MachineCall[] }) {
  return (
    <table className="mt-2 w-full max-w-[640px] text-left text-[13px]">
      <thead className="text-soft">
        <tr>
          <th className="font-normal">Call</th>
          <th className="font-normal">Answer</th>
          <th className="font-normal">Took</th>
          <th className="font-normal">When</th>
        </tr>
      </thead>
      <tbody>
        {calls.slice(0, 20).map((one) => (
          <tr key={`${one.at} ${one.call} ${one.milliseconds}`} className="border-t border-line">
            <td>{one.call}</td>
            <td className={`num ${one.status >= 400 ? 'text-beet' : ''}`}>{one.status}</td>
            <td className="num">{one.milliseconds} ms</td>
            <td>{time(one.at)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

const MICROS = 1_000_000

function NewKey({ onClose, onMade }: { onClose: () => void; onMade: (secret: string) => void }) {
  const [make, made] = useMakeMachineKeyMutation()
  const [name, setName] = useState('')
  const [scopes, setScopes] = useState<BodyOf<'makeMachineKey'>['scopes']>(['check'])
  const [perMinute, setPerMinute] = useState('600')
  const [budget, setBudget] = useState('0')
  const [expiresOn, setExpiresOn] = useState('')
  const send = async (event: FormEvent) => {
    event.preventDefault()
    const body = {
      name,
      scopes,
      perMinute: Number(perMinute),
      budget: Math.round(Number(budget) * MICROS),
      expiresOn: expiresOn === '' ? null : expiresOn,
    }
    const done = await make({ body })
    if (done.data) onMade(done.data.secret)
  }
  return (
    <Dialog title="A key for a program" isOpen onClose={onClose} isWide>
      <form className="flex flex-col gap-3" onSubmit={send}>
        <TextField label="Name" required value={name} onChange={(event) => setName(event.target.value)} />
        <fieldset>
          <legend className="pb-1 font-semibold">What it may do</legend>
          {KEY_SCOPES.map((scope) => (
            <label key={scope} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="size-4 accent-moss"
                checked={scopes.includes(scope)}
                onChange={() =>
                  setScopes(scopes.includes(scope) ? scopes.filter((one) => one !== scope) : [...scopes, scope])
                }
              />
              {SCOPE_TEXT[scope][0]} <span className="text-soft">{SCOPE_TEXT[scope][1]}</span>
            </label>
          ))}
        </fieldset>
        <div className="grid grid-cols-3 gap-3">
          <TextField
            label="Calls a minute"
            type="number"
            min={1}
            value={perMinute}
            onChange={(event) => setPerMinute(event.target.value)}
          />
          <TextField
            label="May spend, € a month"
            type="number"
            min={0}
            step="0.01"
            value={budget}
            hint="for questions to the register"
            onChange={(event) => setBudget(event.target.value)}
          />
          <TextField
            label="Ends on"
            type="date"
            value={expiresOn}
            onChange={(event) => setExpiresOn(event.target.value)}
          />
        </div>
        <Refused by={[made]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="main" disabled={name.trim() === '' || scopes.length === 0 || made.isLoading}>
            Make the key
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
