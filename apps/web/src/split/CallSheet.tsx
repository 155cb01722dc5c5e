import type { CallItem, CallSheet as Sheet } from '@upper-field/contract'
import { OUTCOMES, type Outcome } from '@upper-field/core/split'
import { useState } from 'react'
import { useNoteCallMutation, useReadCallSheetQuery } from '../api'
import { Button, Key } from '../kit/Button'
import { Glyph } from '../kit/Glyph'
import { useMayChange } from '../people/useRole'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { count, countryName, date, phone } from '../words/format'
import { CALL, LINE, LINE_STATUS, OUTCOME } from '../words/sentences'
import { laterMoments } from './laterMoments'

/** Whoever is to be called, one after the other, with an outcome for each. */
export function CallSheet() {
  const { listId, text } = useListView()
  const mayChange = useMayChange()
  const asked = useReadCallSheetQuery({ params: { listId }, query: { filter: text } })
  const sheet = lastRead(asked)
  const [note, noting] = useNoteCallMutation()
  const [isChoosing, setIsChoosing] = useState(false)
  /** The sheet in which an outcome was noted last: whoever stands first in it has theirs. */
  const [noted, setNoted] = useState<Sheet | null>(null)
  const [current, ...others] = sheet?.next ?? []
  const mayNote = mayChange && current !== undefined && sheet !== noted && !noting.isLoading
  const noteOutcome = async (outcome: Outcome, againAt: string | null = null) => {
    if (!mayNote || !sheet) return
    if (outcome === 'later' && againAt === null) {
      setIsChoosing(true)
      return
    }
    setIsChoosing(false)
    const { contactId, e164 } = current
    const { error } = await note({ params: { listId }, body: { contactId, e164, outcome, againAt } })
    if (!error) setNoted(sheet)
  }
  useKeys(Object.fromEntries(OUTCOMES.map((outcome, at) => [String(at + 1), () => void noteOutcome(outcome)])))
  if (!sheet) return <Unanswered of={[asked]} what="the call sheet" />
  if (!current)
    return (
      <p className="border-y border-line py-4 text-soft">
        Nobody is left to be called{sheet.resting > 0 ? `; ${count(sheet.resting)} are called again another time` : ''}.
      </p>
    )
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <Refused by={[noting]} />
      <section
        aria-label="To be called now"
        className="mb-4 flex gap-6 rounded-small border border-moss bg-surface px-5 py-4"
      >
        <Person item={current} />
        {mayChange ? (
          <div className="flex w-52 shrink-0 flex-col gap-1.5">
            {OUTCOMES.map((outcome, at) => (
              <Button
                key={outcome}
                look={outcome === 'reached' ? 'main' : 'plain'}
                disabled={!mayNote}
                aria-expanded={outcome === 'later' ? isChoosing : undefined}
                className="flex w-full items-center justify-between"
                onClick={() => void noteOutcome(outcome)}
              >
                {OUTCOME[outcome]}
                {outcome === 'later' ? ' …' : ''}
                <Key>{String(at + 1)}</Key>
              </Button>
            ))}
            {isChoosing ? (
              <fieldset aria-label="Called again" className="flex flex-wrap gap-1.5">
                {laterMoments(new Date()).map(({ text: when, at }) => (
                  <Button key={when} onClick={() => void noteOutcome('later', at)}>
                    {when}
                  </Button>
                ))}
              </fieldset>
            ) : null}
          </div>
        ) : null}
      </section>
      <Next others={others} sheet={sheet} />
    </div>
  )
}

function Person({ item }: { item: CallItem }) {
  const where = [item.title, item.company, item.city, item.country ? countryName(item.country) : '']
  return (
    <div className="min-w-0 flex-1">
      <h2>
        <bdi>{item.fullName || 'No name'}</bdi>
      </h2>
      <p className="text-soft">{where.filter(Boolean).join(' · ')}</p>
      <p className="num py-2 text-[26px] leading-8">
        <a href={`tel:${item.e164}`}>{phone(item.e164)}</a>
      </p>
      <p>
        <Glyph type={item.lineType} /> <span className="pl-1">{lineText(item)}</span>
      </p>
      <p className={item.call === 'now' ? 'text-moss' : 'text-straw-ink'}>{hoursText(item)}</p>
      {item.last ? (
        <p className="text-soft">
          {OUTCOME[item.last.outcome]} on {date(item.last.at)}.
        </p>
      ) : null}
    </div>
  )
}

const lineText = ({ lineType, lineStatus, isShared }: CallItem): string =>
  [(LINE[lineType] ?? '').toLowerCase(), LINE_STATUS[lineStatus] ?? '', isShared ? 'held by several people' : '']
    .filter(Boolean)
    .join(', ')

const hoursText = ({ clock, until, call }: CallItem): string =>
  [
    clock === null ? '' : `${clock} there`,
    call === 'now' && until !== null ? `may be called until ${until}` : CALL[call],
  ]
    .filter(Boolean)
    .join(', ')

function Next({ others, sheet }: { others: readonly CallItem[]; sheet: Sheet }) {
  const left = sheet.now + sheet.later - 1 - others.length
  if (others.length === 0) return null
  return (
    <>
      <h2 className="pb-1 text-[15px]">Next</h2>
      <table aria-label="Next to be called" className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1 font-normal">Contact</th>
            <th className="font-normal">Company</th>
            <th className="font-normal">Number</th>
            <th className="font-normal">There now</th>
            <th className="text-right font-normal">May be called</th>
          </tr>
        </thead>
        <tbody>
          {others.map((item) => (
            <tr key={item.contactId} className="border-b border-line">
              <td className="py-1.5 pr-3">
                <bdi>{item.fullName || 'No name'}</bdi>
              </td>
              <td className="max-w-48 truncate pr-3">
                <bdi>{item.company}</bdi>
              </td>
              <td className="num pr-3 text-[13px]">{phone(item.e164)}</td>
              <td className="num">{item.clock ?? '–'}</td>
              <td className={`text-right ${item.call === 'now' ? 'text-moss' : 'text-soft'}`}>
                {item.call === 'now' ? 'now' : CALL[item.call]}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {left > 0 ? (
        <p className="pt-1 text-[13px] text-soft">
          {sheet.isCapped ? 'At least ' : ''}
          {count(left)} more after these.
        </p>
      ) : null}
    </>
  )
}
