import type { LookedUp } from '@upper-field/contract'
import { Command } from 'cmdk'
import { useLookUpQuery } from '../api'
import { Glyph } from '../kit/Glyph'
import { onListText } from '../suppression/onListText'
import { date, money, phone } from '../words/format'
import { ADDRESS, CALL, LINE, LINE_STATUS, PROBLEM, REPAIR } from '../words/sentences'

/** True for a text that may be a number or an address, and is no name of a list. */
export const looksLikeReach = (text: string): boolean => text.includes('@') || (text.match(/\d/g)?.length ?? 0) >= 6

/** A country may stand before the number, by its code. */
export function askedFor(typed: string): { readonly text: string; readonly country: string | null } {
  const [, country = '', text = ''] = /^([a-z]{2})\s+(.*\d.*)$/i.exec(typed) ?? []
  return text ? { text, country: country.toUpperCase() } : { text: typed, country: null }
}

interface LookedUpItemsProps {
  readonly text: string
  readonly itemClass: string
  readonly onOpen: (to: string) => void
}

/** What a pasted number or address is, what is known of it, and who holds it: each holder can be opened. */
export function LookedUpItems({ text, itemClass, onOpen }: LookedUpItemsProps) {
  const { currentData: told } = useLookUpQuery({ body: askedFor(text) })
  if (!told) return <p className="px-3 py-2 text-soft">Looking it up …</p>
  const { numbers, addresses, reading } = told
  if (numbers.length === 0 && addresses.length === 0)
    return (
      <p className="px-3 py-2 text-soft">
        {reading.problem ? PROBLEM[reading.problem] : 'This is no number and no address.'}
        {reading.problem === 'no-country' ? ' Put its code before it, as in “GB 07911 …”.' : ''}
      </p>
    )
  return (
    <>
      {numbers.map((number) => (
        <Told key={number.e164} told={number} itemClass={itemClass} onOpen={onOpen}>
          <p className="num text-[15px]">
            <Glyph type={number.lineType} /> {phone(number.e164)}
          </p>
          <p className="text-[13px] text-soft">{numberText(number)}</p>
          {reading.repairs.map((repair) => (
            <p key={repair} className="text-[13px] text-soft">
              {REPAIR[repair]}
            </p>
          ))}
        </Told>
      ))}
      {addresses.map((address) => (
        <Told key={address.address} told={address} itemClass={itemClass} onOpen={onOpen}>
          <p className="break-words text-[15px]">{address.address}</p>
          <p className="text-[13px] text-soft">
            {address.kind} · {ADDRESS[address.state]}
          </p>
        </Told>
      ))}
    </>
  )
}

/** What is known of a number, in a line. */
export function numberText({ valid, lineType, status, knownFrom, region, call }: LookedUp['numbers'][number]): string {
  if (!valid) return 'not valid'
  return [
    `${(LINE[lineType] ?? '').toLowerCase()} by ${knownFrom === 'register' ? 'a line check' : 'the numbering plan'}`,
    status === 'unknown' ? '' : (LINE_STATUS[status] ?? ''),
    region ?? '',
    CALL[call],
  ]
    .filter(Boolean)
    .join(' · ')
}

type Held = Pick<LookedUp['numbers'][number], 'holders' | 'held' | 'suppressedBy' | 'price' | 'checkedAt'>

/** What asking would cost, in a line. */
export const askingText = ({ price, checkedAt }: Pick<Held, 'price' | 'checkedAt'>): string => {
  if (price === null) return 'Nobody is connected who could be asked.'
  if (price > 0) return `Asking costs ${money(price)}.`
  return checkedAt ? `Answered on ${date(checkedAt)}; nothing to pay.` : 'There is nothing to ask.'
}

function Told(props: { told: Held; itemClass: string; onOpen: (to: string) => void; children: React.ReactNode }) {
  const { told, itemClass, onOpen, children } = props
  return (
    <section className="border-b border-line pb-1">
      <div className="px-3 py-1.5">
        {children}
        {told.suppressedBy.map(({ list, scope, reason, addedAt }) => (
          <p key={list + addedAt} className="text-[13px] text-beet">
            {onListText({ list, scope, addedAt })}
            {reason ? `: ${reason}` : ''}
          </p>
        ))}
        <p className="text-[13px] text-soft">
          {askingText(told)} {told.held === 0 ? 'No list holds it.' : ''}
        </p>
      </div>
      {told.holders.map(({ contactId, listId, list, fullName, company }) => (
        <Command.Item
          key={contactId}
          value={`holder ${contactId}`}
          className={itemClass}
          onSelect={() => onOpen(`/lists/${listId}/tidy?contact=${contactId}`)}
        >
          {[fullName || 'No name', company].filter(Boolean).join(' · ')} <span className="text-soft">in {list}</span>
        </Command.Item>
      ))}
      {told.held > told.holders.length ? (
        <p className="px-3 text-[13px] text-soft">and {told.held - told.holders.length} more</p>
      ) : null}
    </section>
  )
}
