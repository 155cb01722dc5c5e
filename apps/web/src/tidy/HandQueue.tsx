import type { HandItem } from '@upper-field/contract'
import { type MouseEvent, useEffect, useMemo, useRef, useState } from 'react'
import { useCountAlikeMutation, useFixAlikeMutation, useMakeEditsMutation, useReadHandInfiniteQuery } from '../api'
import { Button, Key, TextButton } from '../kit/Button'
import { Glyph } from '../kit/Glyph'
import { Refused, Unanswered } from '../shell/Answer'
import { useJobUnderWay } from '../shell/JobUnderWay'
import { useReadAhead } from '../shell/readOn'
import { useListView } from '../shell/useListView'
import { count, countryName, phone, plural } from '../words/format'
import { LINE, PROBLEM } from '../words/sentences'
import { columnTitle, FIX, HAND_PROBLEM } from '../words/tidying'
import type { HandKind, TidyAnswer } from './tidyWorker'
import { useTidyWorker } from './useTidyWorker'

type Live = Extract<TidyAnswer, { kind: 'read' }>

/** What the cells of the queue have in common, one after the other. */
interface Queue {
  readonly ask: ReturnType<typeof useTidyWorker>
  /** Told what the worker reads in the cell in front. */
  readonly onRead: { current: (live: Live) => void }
  /** The cell before was left by a key: this one is typed into at once. */
  readonly isLeftByKey: { current: boolean }
}

/** Cells that need a person, one after another: typed with a live reading, accepted with Enter. */
export function HandQueue() {
  const view = useListView()
  const asked = useReadHandInfiniteQuery({ listId: view.listId })
  const { data } = asked
  const [later, setLater] = useState<ReadonlySet<string>>(new Set())
  const items = useMemo(() => data?.pages.flatMap((page) => page.items) ?? [], [data])
  const total = data?.pages[0]?.total ?? 0
  const left = items.filter((item) => !later.has(keyOf(item)))
  const onRead = useRef<(live: Live) => void>(() => {})
  const isLeftByKey = useRef(false)
  const ask = useTidyWorker((answer) => {
    if (answer.kind === 'read') onRead.current(answer)
  })
  const [first] = left
  useReadAhead(left.length, asked)
  if (data === undefined) return <Unanswered of={[asked]} what="the cells that need a hand" />
  return (
    <section aria-label="Cells that need a hand" className="shrink-0 border-t border-edge bg-surface px-5 py-3">
      <div className="flex items-baseline gap-3 pb-2">
        <h2>
          {total === 0
            ? 'No cell needs a hand'
            : `${plural(total, 'contact')} ${total === 1 ? 'needs' : 'need'} a hand`}
        </h2>
        <p className="text-soft">
          {total === 0 ? 'Everything that could be read has been read.' : 'most promising first'}
          {later.size > 0 ? (
            <>
              {` · ${count(later.size)} left for later `}
              <TextButton onClick={() => setLater(new Set())}>show them again</TextButton>
            </>
          ) : null}
        </p>
      </div>
      <Refused by={[asked]} />
      {first ? (
        <HandCell
          key={keyOf(first)}
          item={first}
          queue={{ ask, onRead, isLeftByKey }}
          onLater={() => setLater(new Set([...later, keyOf(first)]))}
        />
      ) : null}
    </section>
  )
}

const keyOf = (item: HandItem): string => `${item.contactId}/${item.column}/${item.raw}`

function HandCell({ item, queue, onLater }: { item: HandItem; queue: Queue; onLater: () => void }) {
  const { ask, onRead, isLeftByKey } = queue
  const view = useListView()
  const [text, setText] = useState(item.raw)
  const [live, setLive] = useState<Live | null>(null)
  const [save, saving] = useMakeEditsMutation()
  const input = useRef<HTMLInputElement>(null)
  const holds = kindOf(item)
  useEffect(() => {
    onRead.current = setLive
    // Whoever has gone elsewhere meanwhile stays there.
    if (isLeftByKey.current && document.activeElement === document.body) input.current?.focus()
    isLeftByKey.current = false
  }, [onRead, isLeftByKey])
  useEffect(() => ask({ kind: 'read', text, country: item.country, holds }), [text, item.country, holds, ask])
  const isGood = holds === 'text' ? text.trim() !== '' : isReadable(live)
  // What was put right is shown until the next cell is read: to accept it again would change nothing.
  const isPut = saving.isSuccess && saving.originalArgs?.body?.edits[0]?.value === text
  const mayPut = isGood && !isPut && !saving.isLoading
  const put = (value: string, isByKey: boolean) => {
    isLeftByKey.current = isByKey
    void save({
      params: { listId: view.listId },
      body: { edits: [{ contactId: item.contactId, column: item.column, value }, ...secondPerson(item, value)] },
    })
  }
  const leave = (isByKey: boolean) => {
    isLeftByKey.current = isByKey
    onLater()
  }
  const pick = (by: number) => {
    const texts = item.fixes.map((fix) => fix.text)
    const at = texts.indexOf(text)
    const next = texts[at + by] ?? (by > 0 ? texts[0] : item.raw)
    if (next !== undefined) setText(next)
  }
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-5">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          if (mayPut) put(text, true)
        }}
      >
        <p className="pb-1 text-soft">
          <TextButton onClick={() => view.choose(item.contactId)}>
            Row {count(item.row)} of {item.batch}
          </TextButton>
          {` · ${[item.who, item.country ? countryName(item.country) : ''].filter(Boolean).join(' · ')}`}
        </p>
        <p className={`truncate pb-1 text-[15px] ${item.isNumber ? 'num' : ''}`} title={item.raw}>
          <bdi>{item.raw}</bdi>
        </p>
        <label>
          <span className="sr-only">{columnTitle(item.column)} as it should be</span>
          <input
            ref={input}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
                event.preventDefault()
                pick(event.key === 'ArrowDown' ? 1 : -1)
              }
              if (event.key === 'Escape') leave(true)
            }}
            autoComplete="off"
            spellCheck={false}
            className={`min-h-9 w-full rounded-small border-2 border-moss bg-surface px-2 text-[15px] ${item.isNumber ? 'num' : ''}`}
          />
        </label>
        <LiveReading live={live} item={item} isAsItStood={text === item.raw} />
        <Refused by={[saving]} />
      </form>
      <div className="flex min-w-0 flex-col gap-2">
        <Fixes item={item} chosen={text} onPick={(fix) => setText(fix)} />
        <div className="mt-auto flex flex-wrap items-center gap-2">
          <Button look="main" disabled={!mayPut} onClick={(event) => put(text, isByKey(event))}>
            Accept and go on <Key>Enter</Key>
          </Button>
          <Button onClick={(event) => leave(isByKey(event))}>
            Later <Key>Esc</Key>
          </Button>
          <Button disabled={saving.isLoading} onClick={(event) => put('', isByKey(event))}>
            {NOTHING_HERE[holds]}
          </Button>
        </div>
      </div>
    </div>
  )
}

/** A button that is pressed by Enter or the space bar is clicked no time. */
const isByKey = ({ detail }: MouseEvent): boolean => detail === 0

const isReadable = (live: Live | null): boolean =>
  live !== null &&
  (live.reading ? live.reading.numbers.length > 0 && live.reading.problem === null : live.emails.length > 0)

const kindOf = (item: HandItem): HandKind =>
  item.isNumber ? 'number' : item.column.startsWith('email') ? 'email' : 'text'

/** Whoever of two people was not chosen stays with the contact, in a column of their own. */
function secondPerson(item: HandItem, chosen: string) {
  const other = item.fixes.find(({ text }) => text !== chosen)
  const isParted = item.problem === 'two-people' && item.fixes.some(({ text }) => text === chosen)
  return isParted && other ? [{ contactId: item.contactId, column: 'Second person', value: other.text }] : []
}

const NOTHING_HERE: Record<HandKind, string> = {
  number: 'No number here',
  email: 'No e-mail here',
  text: 'Nothing here',
}

function hintOf(item: HandItem): string {
  if (item.fixes.length === 0)
    return kindOf(item) === 'number'
      ? 'Nothing near to it is in the plan: it can only be typed.'
      : 'Nothing is near to it: it can only be typed.'
  return kindOf(item) === 'text' ? 'What it may be, by' : 'Nearest readings, by'
}

/** Choices that are another one in every cell: they are made one by one. */
const ONE_BY_ONE: ReadonlySet<string> = new Set(['person', 'code', 'parts-joined'])

function LiveReading({ live, item, isAsItStood }: { live: Live | null; item: HandItem; isAsItStood: boolean }) {
  if (isAsItStood || live === null || kindOf(item) === 'text')
    return <p className="pt-1 text-straw-ink">{HAND_PROBLEM[item.problem]}</p>
  const numbers = live.reading?.numbers ?? []
  return (
    <div role="status" className="pt-1">
      {numbers.map((number) => (
        <p key={number.e164} className={number.valid ? '' : 'text-straw-ink'}>
          <Glyph type={number.lineType} /> <span className="num">{phone(number.e164)}</span>{' '}
          {number.valid ? `${(LINE[number.lineType] ?? '').toLowerCase()} by the plan` : 'not in the plan'}
        </p>
      ))}
      {live.emails.map(({ address, kind }) => (
        <p key={address}>
          {address} <span className="text-soft">{kind}</span>
        </p>
      ))}
      {live.reading?.problem ? <p className="text-straw-ink">{PROBLEM[live.reading.problem]}</p> : null}
      {live.reading === null && live.emails.length === 0 ? (
        <p className="text-straw-ink">No address can be read here.</p>
      ) : null}
    </div>
  )
}

function Fixes({ item, chosen, onPick }: { item: HandItem; chosen: string; onPick: (text: string) => void }) {
  const view = useListView()
  const [alike, counting] = useCountAlikeMutation()
  const [mend, mending] = useFixAlikeMutation()
  const isTidying = useJobUnderWay('tidy') !== undefined
  const [fix] = item.fixes
  const kind = fix && !ONE_BY_ONE.has(fix.kind) ? fix.kind : undefined
  useEffect(() => {
    if (kind) void alike({ params: { listId: view.listId }, body: { kind, problem: item.problem, apply: false } })
  }, [alike, kind, item.problem, view.listId])
  const others = (counting.data?.cells ?? 1) - 1
  return (
    <div>
      <p className="pb-1 text-[13px] text-soft">
        {hintOf(item)}{' '}
        {item.fixes.length > 0 ? (
          <>
            <Key>↓</Key> <Key>↑</Key>
          </>
        ) : null}
      </p>
      <ul>
        {item.fixes.map((one) => (
          <li key={one.text}>
            <button
              type="button"
              aria-pressed={one.text === chosen}
              onClick={() => onPick(one.text)}
              className={`flex w-full flex-wrap items-baseline justify-between gap-x-3 rounded-small px-2 py-1 text-left ${one.text === chosen ? 'bg-lichen' : 'hover:bg-hill'}`}
            >
              <span className={`min-w-0 max-w-full truncate ${item.isNumber ? 'num' : ''}`}>{one.text}</span>
              <span className="shrink-0 text-[13px] text-soft">{FIX[one.kind] ?? one.kind}</span>
            </button>
          </li>
        ))}
      </ul>
      {others > 0 && kind ? (
        <p className="pt-1 text-[13px]">
          {plural(others, 'other cell')} with the same slip.{' '}
          <TextButton
            disabled={mending.isLoading || isTidying}
            onClick={() =>
              void mend({ params: { listId: view.listId }, body: { kind, problem: item.problem, apply: true } })
            }
          >
            Mend all {count(others + 1)} by their nearest reading
          </TextButton>
        </p>
      ) : null}
      <Refused by={[mending]} />
    </div>
  )
}
