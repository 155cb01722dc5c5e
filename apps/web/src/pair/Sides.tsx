import type { PairItem, PairSide } from '@upper-field/contract'
import type { SurvivorPart } from '@upper-field/core/pair'
import { Key, TextButton } from '../kit/Button'
import { count, countryName, phone } from '../words/format'
import { bitsText, evidenceSentence, PAIR_REASON, PART, SILENT } from '../words/pairing'
import type { Survivor } from './useSurvivor'

interface Row {
  /** What of the joined contact it is chosen with; null where the first that tells it is kept. */
  readonly part: SurvivorPart | null
  /** In place of the part's own name. */
  readonly heading?: string
  readonly field: PairItem['evidence'][number]['field'] | null
  readonly isCode?: boolean
  valueOf(side: PairSide): string
}

/** What is compared, a row for each. */
export const ROWS: readonly Row[] = [
  { part: 'name', field: 'name', valueOf: ({ fullName }) => fullName },
  {
    part: 'company',
    field: 'company',
    valueOf: ({ company, domain }) => [company, domain].filter(Boolean).join('\n'),
  },
  {
    part: 'numbers',
    field: 'number',
    isCode: true,
    valueOf: ({ numbers }) => numbers.map(({ e164 }) => phone(e164)).join('\n'),
  },
  { part: 'emails', field: 'email', valueOf: ({ emails }) => emails.join('\n') },
  { part: 'profile', field: 'profile', valueOf: ({ profile }) => profile },
  {
    part: 'place',
    field: 'place',
    valueOf: ({ postalCode, city, country }) =>
      [[postalCode, city].filter(Boolean).join(' '), country ? countryName(country) : ''].filter(Boolean).join(', '),
  },
  { part: 'place', field: 'street', heading: 'Street', valueOf: ({ street }) => street },
  { part: null, field: 'birth', heading: 'Birth date', isCode: true, valueOf: ({ birthDate }) => birthDate },
  { part: 'title', field: null, valueOf: ({ title }) => title },
]

interface SidesProps {
  readonly pair: PairItem
  readonly values: Survivor
  /** Those of the others that are joined with the two. */
  readonly also: ReadonlySet<number>
  onAlso(contactId: number): void
  onOpen(contactId: number): void
}

/** Contacts side by side: what agrees quiet, what differs loud, the weight of each beside it. */
export function Sides({ pair, values, also, onAlso, onOpen }: SidesProps) {
  const all = [...pair.sides, ...pair.others]
  const isJoined = (at: number) => at < 2 || also.has(all[at]?.contactId ?? 0)
  return (
    <table className="w-full table-fixed border border-line bg-surface">
      <thead>
        <tr className="border-b border-line text-left">
          <th scope="col" className="w-[13%] px-3 py-2">
            <span className="sr-only">Field</span>
          </th>
          {all.map((side, i) => (
            <th key={side.contactId} scope="col" className="px-3 py-2 font-normal">
              <TextButton onClick={() => onOpen(side.contactId)}>
                {side.batch}, row {count(side.row)}
              </TextButton>
              {i < 2 ? null : (
                <label className="flex items-center gap-1.5 text-[13px] text-soft">
                  <input
                    type="checkbox"
                    className="size-4 accent-moss"
                    checked={also.has(side.contactId)}
                    onChange={() => onAlso(side.contactId)}
                  />
                  join too
                </label>
              )}
            </th>
          ))}
          <th scope="col" className="w-[11%] px-3 py-2 text-right font-normal text-soft">
            weight
          </th>
        </tr>
      </thead>
      <tbody>
        {ROWS.map((row, at) => {
          const texts = all.map(row.valueOf)
          if (texts.every((text) => text === '')) return null
          const found = pair.evidence.find(({ field }) => field === row.field)
          const isSame = texts.every((text) => text === texts[0])
          const filled = texts.filter((text, i) => text !== '' && isJoined(i))
          const { part } = row
          const isChoice = part !== null && filled.length > 1 && new Set(filled).size > 1
          return (
            <tr key={row.field ?? row.part} className="border-b border-line align-top">
              <th scope="row" className="px-3 py-1.5 text-left font-normal text-soft">
                {row.heading ?? (part && PART[part])} {isChoice ? <Key>{String(at + 1)}</Key> : null}
              </th>
              {all.map((side, i) => (
                <SideCell
                  key={side.contactId}
                  text={texts[i] ?? ''}
                  tone={`${row.isCode ? 'num' : ''} ${isSame || !isJoined(i) ? 'text-soft' : 'font-semibold'}`}
                  isFirst={part !== null && values.sourceOf(part) === side.contactId}
                  {...(isChoice && isJoined(i) && texts[i] !== ''
                    ? { onChoose: () => part && values.choose(part, side.contactId) }
                    : {})}
                />
              ))}
              <td
                className={`num px-3 py-1.5 text-right ${found && found.bits < -SILENT ? 'text-beet' : found && found.bits <= SILENT ? 'text-soft' : ''}`}
              >
                {found ? bitsText(found.bits) : ''}
              </td>
            </tr>
          )
        })}
        <tr className="border-b border-line">
          <td colSpan={all.length + 1} className="px-3 py-1.5 text-soft">
            Any two contacts of this list
          </td>
          <td className="num px-3 py-1.5 text-right text-beet">{bitsText(-pair.against)}</td>
        </tr>
      </tbody>
      <tfoot>
        <tr className="align-top">
          <td colSpan={all.length + 1} className="px-3 py-2">
            {evidenceSentence(pair.evidence)}{' '}
            <span className="text-soft">They came up for: {PAIR_REASON[pair.key]}.</span>
          </td>
          <td className="num px-3 py-2 text-right font-semibold">{bitsText(pair.score)}</td>
        </tr>
      </tfoot>
    </table>
  )
}

/** What one side says; the shaded one comes first. Where both say something, a click chooses. */
function SideCell(props: { text: string; tone: string; isFirst: boolean; onChoose?: () => void }) {
  const { text, tone, isFirst, onChoose } = props
  const shown = text === '' ? <span className="text-soft">–</span> : <bdi>{text}</bdi>
  return (
    <td className={`whitespace-pre-line break-words ${tone} ${isFirst ? 'bg-lichen' : ''}`}>
      {onChoose ? (
        <button
          type="button"
          aria-pressed={isFirst}
          onClick={onChoose}
          className="block w-full whitespace-pre-line break-words px-3 py-1.5 text-left hover:bg-hill"
        >
          {shown}
        </button>
      ) : (
        <span className="block px-3 py-1.5">{shown}</span>
      )}
    </td>
  )
}
