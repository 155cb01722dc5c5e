import type { BodyOf, WebhookLine, WebhookMessage } from '@upper-field/contract'
import { WEBHOOK_EVENTS } from '@upper-field/contract'
import { type FormEvent, useState } from 'react'
import { useReadListsQuery } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField, TextField } from '../kit/Field'
import { Answer, Refused } from '../shell/Answer'
import { count, plural, shortened, time } from '../words/format'
import {
  useChangeWebhookMutation,
  useMakeWebhookMutation,
  useReadWebhookMessagesQuery,
  useReadWebhooksQuery,
  useRemoveWebhookMutation,
  useSendWebhookAgainMutation,
} from './programApi'
import { EVENT_TEXT, messageText } from './programText'
import { ShownOnce } from './ShownOnce'

/** While messages wait, they are looked at anew this often, in milliseconds. */
const LOOK = 5000

/** Who is told what happens, and what became of each message. */
export function Webhooks({ isOwner }: { isOwner: boolean }) {
  const webhooks = useReadWebhooksQuery({}, { pollingInterval: LOOK })
  const [isMaking, setIsMaking] = useState(false)
  const [secret, setSecret] = useState<string | null>(null)
  const [open, setOpen] = useState<string | null>(null)
  return (
    <section aria-labelledby="webhooks">
      <div className="flex items-baseline justify-between pb-2">
        <h2 id="webhooks">Webhooks</h2>
        {isOwner ? <Button onClick={() => setIsMaking(true)}>Have a program told</Button> : null}
      </div>
      <Answer
        of={webhooks}
        what="the webhooks"
        none={<p className="border-y border-line py-3 text-soft">No program is told anything.</p>}
      >
        {(all) => (
          <ul>
            {all.map((webhook) => (
              <li key={webhook.id} className="border-b border-line py-2">
                <Line
                  webhook={webhook}
                  isOwner={isOwner}
                  isOpen={open === webhook.id}
                  onOpen={() => setOpen(open === webhook.id ? null : webhook.id)}
                />
                {open === webhook.id ? <Messages webhookId={webhook.id} /> : null}
              </li>
            ))}
          </ul>
        )}
      </Answer>
      {isMaking ? (
        <NewWebhook
          onClose={() => setIsMaking(false)}
          onMade={(made) => {
            setIsMaking(false)
            setSecret(made)
          }}
        />
      ) : null}
      {secret ? <ShownOnce title="The secret that signs" secret={secret} onClose={() => setSecret(null)} /> : null}
    </section>
  )
}

function Line(props: { webhook: WebhookLine; isOwner: boolean; isOpen: boolean; onOpen: () => void }) {
  const { webhook, isOwner, isOpen, onOpen } = props
  const [change, changing] = useChangeWebhookMutation()
  const [remove, removing] = useRemoveWebhookMutation()
  const { data: lists = [] } = useReadListsQuery({})
  const params = { webhookId: webhook.id }
  const list = lists.find(({ id }) => id === webhook.listId)?.name
  return (
    <div>
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span className={`num min-w-0 flex-1 truncate ${webhook.isOn ? '' : 'text-soft line-through'}`}>
          {webhook.url}
        </span>
        {webhook.failed > 0 ? <span className="text-beet">{count(webhook.failed)} given up</span> : null}
        {webhook.waiting > 0 ? <span className="text-straw-ink">{count(webhook.waiting)} waiting</span> : null}
      </p>
      <p className="text-[13px] text-soft">
        {webhook.listId === null ? 'All lists' : (list ?? 'One list')} ·{' '}
        {webhook.events.map((event) => EVENT_TEXT[event]).join(', ')} ·{' '}
        {webhook.lastSentAt ? `told last ${time(webhook.lastSentAt)}` : 'never told'}
        {'  '}
        <TextButton aria-expanded={isOpen} onClick={onOpen}>
          messages
        </TextButton>
        {isOwner ? (
          <>
            {' · '}
            <TextButton onClick={() => void change({ params, body: { isOn: !webhook.isOn } })}>
              {webhook.isOn ? 'switch off' : 'switch on'}
            </TextButton>
            {' · '}
            <AskFirst
              title="Tell this program nothing more?"
              says={`The webhook goes, and with it what ${webhook.url} was told${webhook.waiting > 0 ? `; ${plural(webhook.waiting, 'message')} that wait for it are never sent` : ''}.`}
              does="Remove it"
              onDo={() => void remove({ params })}
            >
              {(ask) => <TextButton onClick={ask}>remove</TextButton>}
            </AskFirst>
          </>
        ) : null}
      </p>
      <Refused by={[changing, removing]} />
    </div>
  )
}

function Messages({ webhookId }: { webhookId: string }) {
  const messages = useReadWebhookMessagesQuery({ params: { webhookId } }, { pollingInterval: LOOK })
  return (
    <Answer
      of={messages}
      what="the messages"
      none={<p className="pt-1 text-[13px] text-soft">Nothing was to be told yet.</p>}
    >
      {(all) => <MessageTable messages={all} />}
    </Answer>
  )
}

function MessageTable({ messages }: { messages: readonly WebhookMessage[] }) {
  const [again, sending] = useSendWebhookAgainMutation()
  return (
    <>
      <Refused by={[sending]} />
      <table className="mt-2 w-full text-left text-[13px]">
        <thead className="text-soft">
          <tr>
            <th className="font-normal">What happened</th>
            <th className="font-normal">What was sent</th>
            <th className="font-normal">What became of it</th>
            <th className="font-normal">When</th>
            <th>
              <span className="sr-only">Send again</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {messages.map((message) => (
            <tr key={message.id} className="border-t border-line align-top">
              <td className="py-1 pr-3">{EVENT_TEXT[message.event]}</td>
              <td className="num max-w-72 break-words pr-3 text-[12px] text-soft">{JSON.stringify(message.payload)}</td>
              <td className={`pr-3 ${message.state === 'failed' ? 'text-beet' : ''}`}>
                {messageText(message)}
                {message.answer ? <span className="block text-soft">“{shortened(message.answer, 120)}”</span> : null}
              </td>
              <td className="whitespace-nowrap pr-3">{time(message.sentAt ?? message.madeAt)}</td>
              <td>
                <TextButton onClick={() => void again({ params: { messageId: message.id } })}>send again</TextButton>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

function NewWebhook({ onClose, onMade }: { onClose: () => void; onMade: (secret: string) => void }) {
  const [make, made] = useMakeWebhookMutation()
  const { data: lists = [] } = useReadListsQuery({})
  const [url, setUrl] = useState('')
  const [events, setEvents] = useState<BodyOf<'makeWebhook'>['events']>(['contact.placed', 'batch.ready'])
  const [listId, setListId] = useState('')
  const send = async (event: FormEvent) => {
    event.preventDefault()
    const done = await make({ body: { url, events, listId: listId === '' ? null : listId } })
    if (done.data) onMade(done.data.secret)
  }
  return (
    <Dialog title="Have a program told" isOpen onClose={onClose} isWide>
      <form className="flex flex-col gap-3" onSubmit={send}>
        <TextField
          label="Address"
          type="url"
          required
          value={url}
          placeholder="https://forms.wrenfold.example/told"
          onChange={(event) => setUrl(event.target.value)}
        />
        <SelectField label="Of which list" value={listId} onChange={(event) => setListId(event.target.value)}>
          <option value="">all lists</option>
          {lists.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <fieldset>
          <legend className="pb-1 font-semibold">It is told when</legend>
          {WEBHOOK_EVENTS.map((event) => (
            <label key={event} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="size-4 accent-moss"
                checked={events.includes(event)}
                onChange={() =>
                  setEvents(events.includes(event) ? events.filter((one) => one !== event) : [...events, event])
                }
              />
              {EVENT_TEXT[event]} <span className="num text-[12px] text-soft">{event}</span>
            </label>
          ))}
        </fieldset>
        <Refused by={[made]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="main" disabled={url === '' || events.length === 0 || made.isLoading}>
            Begin telling it
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
