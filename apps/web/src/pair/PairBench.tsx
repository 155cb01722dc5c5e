import type { PairItem, PairState } from '@upper-field/contract'
import type { Survivorship } from '@upper-field/core/pair'
import { useMemo, useState } from 'react'
import { useDecidePairMutation, useReadPairsInfiniteQuery } from '../api'
import { Button, Key, TextButton } from '../kit/Button'
import { Empty } from '../kit/Notice'
import { useMayChange } from '../people/useRole'
import { ReadState, Refused } from '../shell/Answer'
import { BenchTitle } from '../shell/Bench'
import { useJobUnderWay } from '../shell/JobUnderWay'
import { useReadAhead } from '../shell/readOn'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { count, plural } from '../words/format'
import { ROWS, Sides } from './Sides'
import { useSurvivor } from './useSurvivor'

/** Pairs one after another: side by side, what agrees quiet, what differs loud, the weight of each beside it. */
export function PairBench({ state }: { state: PairState }) {
  const { listId } = useListView()
  const asked = useReadPairsInfiniteQuery({ listId })
  const { data, hasNextPage } = asked
  const [later, setLater] = useState<ReadonlySet<number>>(new Set())
  const items = useMemo(() => data?.pages.flatMap((page) => page.pairs) ?? [], [data])
  const left = items.filter(({ id }) => !later.has(id))
  useReadAhead(left.length, asked)
  const [first] = left
  const total = data?.pages[0]?.total ?? 0
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 pb-3">
      <BenchTitle title="One person or two?">
        {total === 0 ? null : `${count(total)} to decide, likeliest first`}
        {later.size > 0 ? (
          <>
            {` · ${count(later.size)} left for later `}
            <TextButton onClick={() => setLater(new Set())}>show them again</TextButton>
          </>
        ) : null}
      </BenchTitle>
      <ReadState of={asked} what="the pairs" />
      {first ? (
        <OnePair
          key={first.id}
          pair={first}
          rules={state.survivorship}
          onLater={() => setLater(new Set([...later, first.id]))}
        />
      ) : data === undefined || hasNextPage ? null : (
        <NothingToDecide state={state} hasLater={later.size > 0} />
      )}
    </div>
  )
}

function NothingToDecide({ state, hasLater }: { state: PairState; hasLater: boolean }) {
  const isLooking = useJobUnderWay('pair') !== undefined
  if (hasLater) return <p className="text-soft">Everything else is decided.</p>
  if (isLooking)
    return (
      <Empty title="Contacts are being compared">
        <p className="text-soft">
          Who is surely one person is joined then, and what a person has to decide stands here. Until then the list is
          what it was, and can be worked with.
        </p>
      </Empty>
    )
  return state.ranAt === null ? (
    <Empty title="Nobody has looked for likeness yet">
      <p className="text-soft">
        Rows with the same number or e-mail and a compatible name are joined already. Contacts that are one person and
        share no key are found by comparing them: see “Where to draw the lines”.
      </p>
    </Empty>
  ) : (
    <Empty title="Nothing is left to decide">
      <p className="text-soft">Move the lower line to be asked about less likely pairs.</p>
    </Empty>
  )
}

function OnePair({ pair, rules, onLater }: { pair: PairItem; rules: Survivorship; onLater: () => void }) {
  const view = useListView()
  const [also, setAlso] = useState<ReadonlySet<number>>(new Set())
  const joined = useMemo(
    () => [...pair.sides, ...pair.others.filter(({ contactId }) => also.has(contactId))],
    [pair, also],
  )
  const values = useSurvivor(joined, rules)
  const toggle = (contactId: number) =>
    setAlso(new Set(also.has(contactId) ? [...also].filter((id) => id !== contactId) : [...also, contactId]))
  const mayChange = useMayChange()
  const [decide, deciding] = useDecidePairMutation()
  // What was decided is shown until the next pair is read: the same key pressed again means that one.
  const mayDecide = mayChange && !deciding.isLoading && !deciding.isSuccess
  const choose = (decision: 'join' | 'apart', alike = false) => {
    if (mayDecide)
      void decide({
        params: { pairId: pair.id },
        body: { decision, alike, ...(alike ? {} : { also: [...also], chosen: values.chosen }) },
      })
  }
  const flips = Object.fromEntries(
    ROWS.flatMap(({ part }, i) => (part === null ? [] : [[String(i + 1), () => values.flip(part)] as const])),
  )
  useKeys({ m: () => choose('join'), x: () => choose('apart'), s: onLater, ...flips })
  useKeys({
    w: () => {
      const next = pair.others.find(({ contactId }) => !also.has(contactId))
      if (next) toggle(next.contactId)
      else setAlso(new Set())
    },
  })
  return (
    <section aria-label="Contacts side by side">
      <Sides pair={pair} values={values} also={also} onAlso={toggle} onOpen={view.choose} />
      <Refused by={[deciding]} />
      <div className="flex flex-wrap items-center gap-2 pt-3">
        <Button look="main" disabled={!mayDecide} onClick={() => choose('join')}>
          {also.size > 0 ? `Join all ${count(also.size + 2)}` : pair.others.length > 0 ? 'Join the first two' : 'Join'}{' '}
          <Key>m</Key>
        </Button>
        <Button disabled={!mayDecide} onClick={() => choose('apart')}>
          {pair.others.length > 0 ? 'Keep the first two apart' : 'Keep apart'} <Key>x</Key>
        </Button>
        <Button onClick={onLater}>
          Later <Key>s</Key>
        </Button>
        <p className="min-w-0 flex-1 basis-56 text-[13px] text-soft">
          Shaded values come first afterwards: click another, or press its digit. Nothing is lost: the other numbers and
          e-mails stay as second and third.
        </p>
      </div>
      {pair.alike > 1 ? (
        <div className="mt-4 rounded-small border border-line bg-surface px-3 py-2">
          <p>
            {plural(pair.alike - 1, 'other pair')} {pair.alike === 2 ? 'looks' : 'look'} like this one in every field.
          </p>
          <p className="flex flex-wrap gap-x-4 pt-1">
            <TextButton disabled={!mayDecide} onClick={() => choose('apart', true)}>
              Keep all {count(pair.alike)} apart
            </TextButton>
            <TextButton disabled={!mayDecide} onClick={() => choose('join', true)}>
              Join all {count(pair.alike)}
            </TextButton>
          </p>
        </div>
      ) : null}
    </section>
  )
}
