import type { BodyOf, TriedFormat } from '@upper-field/contract'
import { type FormEvent, useEffect, useState } from 'react'
import { AskFirst } from '../kit/AskFirst'
import { Button, TextButton } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { count, plural } from '../words/format'
import {
  useDropFormatMutation,
  useKeepFormatMutation,
  useLearnFormatMutation,
  useReadFormatsQuery,
  useTryFormatMutation,
} from './harvestApi'
import { formatText } from './harvestText'

/** A part of a page that was marked. */
export type MarkedText = BodyOf<'learnFormat'>

/** A format taught by example: in words, with what it would find and lose, before it is kept. */
export function TeachFormat(props: {
  harvestId: string
  marked: MarkedText | null
  mayChange: boolean
  onDone: () => void
}) {
  const { harvestId, marked, mayChange, onDone } = props
  const [learn, learnt] = useLearnFormatMutation()
  useEffect(() => {
    if (marked) void learn({ params: { harvestId }, body: marked })
  }, [marked, harvestId, learn])
  return (
    <section aria-label="Teach a format" className="border-b border-line pb-4">
      <h2 className="pb-1 text-[15px]">Teach a format</h2>
      {marked === null ? (
        <>
          <p className="text-soft">
            Mark a number in the text that was missed. Click one that was found twice to say that it is none.
          </p>
          <TypedExample onMark={(body) => void learn({ params: { harvestId }, body })} mayChange={mayChange} />
        </>
      ) : null}
      <Refused by={[learnt]} />
      {learnt.data && (marked !== null || learnt.originalArgs?.body) ? (
        <Tried
          key={JSON.stringify(learnt.originalArgs?.body)}
          harvestId={harvestId}
          first={learnt.data}
          mayChange={mayChange}
          onDone={() => {
            learnt.reset()
            onDone()
          }}
        />
      ) : null}
      <KeptFormats mayChange={mayChange} />
    </section>
  )
}

/** The same by keyboard: the words before it and the number, as they stand. */
function TypedExample({ onMark, mayChange }: { onMark: (marked: MarkedText) => void; mayChange: boolean }) {
  const [text, setText] = useState('')
  if (!mayChange) return null
  const send = (event: FormEvent) => {
    event.preventDefault()
    const raw = /[+(]?\d[\d\s()/.–-]*\d/.exec(text)?.[0] ?? ''
    onMark({ block: text, raw, takes: true, country: null })
  }
  return (
    <details className="pt-2 text-[13px]">
      <summary>Or type an example</summary>
      <form className="flex flex-col gap-2 pt-2" onSubmit={send}>
        <TextField
          label="As it stands, with the words before it"
          value={text}
          placeholder="unter der Nummer 05246 555 / 44"
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit" disabled={!/\d/.test(text)}>
          Look what it would find
        </Button>
      </form>
    </details>
  )
}

function Tried(props: { harvestId: string; first: TriedFormat; mayChange: boolean; onDone: () => void }) {
  const { harvestId, first, mayChange, onDone } = props
  const [attempt, again] = useTryFormatMutation()
  const [keep, kept] = useKeepFormatMutation()
  const tried = again.data ?? first
  const { format } = tried
  const [name, setName] = useState(format.name)
  const { data: known = [] } = useReadFormatsQuery({})
  const isTaken = known.some((one) => one.format.name === name.trim())
  const without = (word: string) =>
    void attempt({
      params: { harvestId },
      body: { ...format, notAfter: [...new Set([...format.notAfter, word.toLowerCase()])] },
    })
  const words = [...new Set(tried.suspects.map(({ word }) => word).filter(Boolean))]
  return (
    <div className="flex flex-col gap-2 pt-1">
      <p>{formatText(tried)}.</p>
      <dl className="border-y border-line py-1">
        {(
          [
            [`Would find on the ${plural(tried.pages, 'page')} read`, tried.finds, ''],
            ['Would lose', tried.loses, ''],
            ['Look-alikes it would take', tried.lookAlikes, tried.lookAlikes > 0 ? 'text-beet' : ''],
          ] as const
        ).map(([label, n, tone]) => (
          <div key={label} className="flex justify-between py-0.5">
            <dt>{label}</dt>
            <dd className={`num font-semibold ${tone}`}>{count(n)}</dd>
          </div>
        ))}
      </dl>
      {examplesOf(tried).map((one) => (
        <p key={`${one.url} ${one.value}`} className="rounded-small border border-line px-2 py-1 text-[13px]">
          <span className="block text-soft">{new URL(one.url).host}</span>
          <span className="num">{one.raw}</span> <span className="text-soft">{one.quote}</span>
        </p>
      ))}
      {words.map((word) => (
        <span key={word}>
          <Button onClick={() => without(word)}>Not behind “{word}”</Button>
        </span>
      ))}
      <Refused by={[kept, again]} />
      {mayChange ? (
        <>
          <TextField label="Name" value={name} onChange={(event) => setName(event.target.value)} />
          <Button
            look="main"
            disabled={name.trim() === '' || kept.isLoading}
            onClick={async () => {
              const done = await keep({ params: { harvestId }, body: { ...format, name: name.trim() } })
              if (!('error' in done)) onDone()
            }}
          >
            {isTaken ? 'Replace' : 'Keep'} the format · {keptText(tried)}
          </Button>
        </>
      ) : null}
      <span>
        <TextButton onClick={onDone}>Leave it</TextButton>
      </span>
    </div>
  )
}

/** The first of what it would change, what looks like another thing before all others. */
function examplesOf({ suspects, found, lost }: TriedFormat): TriedFormat['found'] {
  const seen = new Map([...suspects, ...found, ...lost].toReversed().map((one) => [`${one.url} ${one.value}`, one]))
  return [...seen.values()].toReversed().slice(0, 4)
}

const keptText = ({ format, finds, loses }: TriedFormat): string =>
  format.takes ? plural(finds, 'more number', 'more numbers') : `${plural(loses, 'number')} fewer`

function KeptFormats({ mayChange }: { mayChange: boolean }) {
  const { data: kept = [] } = useReadFormatsQuery({})
  const [drop, dropping] = useDropFormatMutation()
  if (kept.length === 0) return null
  return (
    <>
      <h3 className="pt-3">Kept formats</h3>
      <Refused by={[dropping]} />
      <ul className="text-[13px]">
        {kept.map(({ format, madeBy }) => (
          <li key={format.name} className="flex items-baseline justify-between gap-2 py-1">
            <span title={formatText({ format })}>
              {format.name} <span className="text-soft">by {madeBy}</span>
            </span>
            {mayChange ? (
              <AskFirst
                title={`Forget the format ${format.name}?`}
                says="What was read by it stays. Pages that are read from then on go without it."
                does="Forget it"
                onDo={() => void drop({ params: { name: format.name } })}
              >
                {(ask) => (
                  <TextButton aria-label={`Forget the format ${format.name}`} onClick={ask}>
                    forget
                  </TextButton>
                )}
              </AskFirst>
            ) : null}
          </li>
        ))}
      </ul>
    </>
  )
}
