import type { Audience, DestinationDocument } from '@upper-field/contract'
import { count, date } from '../words/format'
import { AccountName } from './AccountName'
import { dueText, matchedText, PURPOSE, sinceText, type Tone } from './audienceText'

const TONE: Readonly<Record<Tone, string>> = {
  good: 'text-soft',
  soft: 'text-soft',
  look: 'text-straw-ink',
  bad: 'text-beet',
}

interface BoardProps {
  readonly audiences: readonly Audience[]
  readonly destinations: readonly DestinationDocument[]
  readonly chosen: string | null
  readonly onChoose: (audienceId: string) => void
  readonly now: number
}

/** Every audience of a list: where it is kept, how it stands, when it is due, and what has changed since. */
export function Board({ audiences, destinations, chosen, onChoose, now }: BoardProps) {
  return (
    <table className="w-full">
      <thead className="text-left text-[13px] text-soft">
        <tr className="border-b border-edge">
          <th className="px-2 py-1 font-normal">Audience</th>
          <th className="px-2 font-normal">Destination, account</th>
          <th className="px-2 text-right font-normal">People</th>
          <th className="px-2 font-normal">Matched</th>
          <th className="px-2 font-normal">Last edition</th>
          <th className="whitespace-nowrap px-2 text-right font-normal">Since then</th>
        </tr>
      </thead>
      <tbody>
        {audiences.map((audience) => (
          <Line
            key={audience.id}
            audience={audience}
            destination={destinations.find(({ id }) => id === audience.destination)}
            isChosen={audience.id === chosen}
            onChoose={() => onChoose(audience.id)}
            now={now}
          />
        ))}
      </tbody>
    </table>
  )
}

interface LineProps {
  readonly audience: Audience
  readonly destination: DestinationDocument | undefined
  readonly isChosen: boolean
  readonly onChoose: () => void
  readonly now: number
}

function Line({ audience, destination, isChosen, onChoose, now }: LineProps) {
  const matched = matchedText(audience, destination?.size.toldFrom ?? null)
  const due = dueText(audience, now, destination?.size.fewestMatched ?? null)
  const hasKinds = (destination?.audiences.length ?? 0) > 1
  return (
    <tr className={`relative border-b border-line align-top ${isChosen ? 'bg-lichen' : 'hover:bg-surface'}`}>
      <td className="max-w-44 p-2">
        <button
          type="button"
          aria-pressed={isChosen}
          onClick={onChoose}
          // The whole line opens it.
          className="block max-w-full truncate text-left font-semibold after:absolute after:inset-0 after:content-[''] hover:underline"
          title={audience.title}
        >
          {audience.title}
        </button>
        <span className="text-[13px] text-soft">
          {audience.similarTo ? `similar people, ${audience.similarTo.country}` : PURPOSE[audience.purpose]}
        </span>
      </td>
      <td className="p-2">
        {destination?.name ?? audience.destination}
        {hasKinds ? <span className="text-soft">, {audience.takes}</span> : null}
        <div className="text-[13px]">
          <AccountName {...audience.account} />
        </div>
      </td>
      <td className="num p-2 text-right">{audience.similarTo ? '' : count(audience.people)}</td>
      <td className="max-w-56 p-2">
        {audience.state === 'usable' && audience.people > 0 ? (
          <Share part={audience.matched ?? 0} whole={audience.people} />
        ) : null}
        <div className={`text-[13px] ${TONE[matched.tone]}`}>{matched.text}</div>
      </td>
      <td className="p-2">
        {audience.lastEditionAt === null ? '—' : date(audience.lastEditionAt)}
        <div className={`text-[13px] ${TONE[due.tone]}`}>{due.text}</div>
      </td>
      <td className="p-2 text-right">
        <span className={`num whitespace-nowrap ${audience.isBehind ? 'text-soft' : ''}`}>{sinceText(audience)}</span>
        {audience.isBehind ? <div className="whitespace-nowrap text-[13px] text-soft">being counted</div> : null}
        {audience.owedRemovals > 0 ? (
          <div className="text-[13px] text-beet">{count(audience.owedRemovals)} must leave</div>
        ) : null}
      </td>
    </tr>
  )
}

/** A part of a whole as a bar; what it says stands beside it in words. */
export const Share = ({ part, whole }: { part: number; whole: number }) => (
  <svg aria-hidden="true" width="96" height="9" className="my-1 block" viewBox="0 0 96 9">
    <rect width="96" height="9" className="fill-hill" />
    <rect width={Math.min(96, (96 * part) / Math.max(1, whole))} height="9" className="fill-moss" />
  </svg>
)
