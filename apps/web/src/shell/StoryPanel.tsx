import type { ContactStory } from '@upper-field/contract'
import {
  problemText,
  useReadStoryQuery,
  useSuppressContactMutation,
  useTakeActBackMutation,
  useTakeApartMutation,
  useTakeFillBackMutation,
} from '../api'
import { useDestinationNames, useServiceNames } from '../connections/useConnected'
import { SearchOne } from '../fill/SearchOne'
import { Key, TextButton } from '../kit/Button'
import { Glyph } from '../kit/Glyph'
import { useMayChange } from '../people/useRole'
import { LaneChoice } from '../split/LaneChoice'
import { LaneName } from '../split/LaneName'
import { ChooseSuppressionList } from '../suppression/ChooseSuppressionList'
import { ForgetPerson } from '../suppression/ForgetPerson'
import { onListText } from '../suppression/onListText'
import { phone, shortened, time } from '../words/format'
import { ADDRESS, CALL, FIELD, LANE_REASON, LINE, LINE_STATUS } from '../words/sentences'
import { tell } from '../words/story'
import { lastRead, Refused, Unanswered } from './Answer'
import { useKeys } from './useKeys'
import { useListView } from './useListView'

/** One contact from its row to its last delivery: what it was beside what it is, and why. */
export function StoryPanel({ contactId }: { contactId: number }) {
  const view = useListView()
  const asked = useReadStoryQuery({ params: { contactId } })
  const story = lastRead(asked)
  const [takeApart, undoing] = useTakeApartMutation()
  const [takeBack, takingBack] = useTakeActBackMutation()
  const service = useServiceNames()
  const destination = useDestinationNames()
  const named = (id: string) => destination(service(id))
  const mayChange = useMayChange()
  const lastJoin = story?.story.findLast(({ what }) => what.kind === 'joined' && what.joinId > 0)?.what
  useKeys({
    z: () => {
      if (mayChange && !undoing.isLoading && lastJoin?.kind === 'joined')
        void takeApart({ params: { joinId: lastJoin.joinId } })
    },
  })
  if (!story) return <Unanswered of={[asked]} what="the story" />
  const { contact } = story
  return (
    <section
      id="story"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: Enter moves into the story, which scrolls
      tabIndex={0}
      aria-label={`Story of ${contact.fullName || 'this contact'}`}
      className="h-full overflow-y-auto px-4 py-3 outline-offset-[-2px]"
    >
      <div className="flex items-start justify-between gap-2">
        <h2>
          <bdi>{contact.fullName || 'No name'}</bdi>
        </h2>
        <button type="button" onClick={() => view.choose(null)} aria-label="Close the story">
          <Key>Esc</Key>
        </button>
      </div>
      <p className="text-soft">
        {[contact.title, contact.company, contact.city, contact.country].filter(Boolean).join(' · ') ||
          'Nothing else is known.'}
      </p>
      <Reach story={story} />
      <h3 className="pt-4">As it stood, and what it became</h3>
      <RowAsItStood story={story} />
      <h3 className="pt-4 pb-1">What happened</h3>
      <Refused by={[undoing, takingBack]} />
      <ol>
        {story.story.map(({ at, what }, i) => {
          const { title, more } = tell(what, named)
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: entries are never reordered
            <li key={i} className="border-t border-line py-2">
              <div className="flex items-baseline justify-between gap-2">
                <span className="font-semibold">{title}</span>
                <span className="shrink-0 text-[12.5px] text-soft">{time(at)}</span>
              </div>
              {more.map((sentence) => (
                <p key={sentence} className="break-words text-[13.5px]">
                  {sentence}
                </p>
              ))}
              {(what.kind === 'edited' || what.kind === 'left-out') && what.actId && mayChange ? (
                <TextButton
                  disabled={takingBack.isLoading}
                  onClick={() => void takeBack({ params: { actId: what.actId ?? '' } })}
                >
                  Take back
                </TextButton>
              ) : null}
              {what.kind === 'filled' && mayChange ? <TakeFillBack fillId={what.fillId} /> : null}
              {what.kind === 'joined' && what.joinId > 0 && mayChange ? (
                <TextButton
                  disabled={undoing.isLoading}
                  onClick={() => void takeApart({ params: { joinId: what.joinId } })}
                >
                  Take apart
                </TextButton>
              ) : null}
            </li>
          )
        })}
      </ol>
    </section>
  )
}

/** Takes a value a provider found out again; what was paid stays paid. */
function TakeFillBack({ fillId }: { fillId: string }) {
  const [takeBack, { error, isLoading }] = useTakeFillBackMutation()
  return (
    <>
      <TextButton disabled={isLoading} onClick={() => void takeBack({ params: { fillId } })}>
        Take out again
      </TextButton>
      {error ? <span className="text-beet">{problemText(error)}</span> : null}
    </>
  )
}

const ORIGIN = { row: '', join: 'from a joined row', fill: 'found by a provider' } as const

/** Which suppression list holds the contact, and why; or the way onto one. */
function Suppression({ story }: { story: ContactStory }) {
  const mayChange = useMayChange()
  const [suppress, suppressing] = useSuppressContactMutation()
  if (story.suppressedBy.length > 0)
    return (
      <ul>
        {story.suppressedBy.map(({ list, scope, reason, key, addedAt }) => (
          <li key={list + addedAt + key} className="text-[13px] text-beet">
            {onListText({ list, scope, addedAt })}
            {key ? ` by ${key.startsWith('+') ? phone(key) : key}` : ', kept as a hash'}
            {reason ? `: ${reason}` : ''}
          </li>
        ))}
      </ul>
    )
  if (!mayChange) return null
  return (
    <>
      <ChooseSuppressionList
        label="Must not be contacted:"
        isBusy={suppressing.isLoading}
        onChoose={(suppressionListId) =>
          void suppress({ params: { contactId: story.contact.id }, body: { suppressionListId } })
        }
      />
      {suppressing.error ? <span className="text-beet">{problemText(suppressing.error)}</span> : null}
    </>
  )
}

/** Where a number is, what its clock may say there, and whether it can be texted. */
function placeOf({ region, timeZones, textable }: ContactStory['numbers'][number]): string {
  const [zone] = timeZones
  return [
    region ?? '',
    timeZones.length > 2
      ? `${timeZones.length} time zones`
      : timeZones.length > 1
        ? timeZones.join(' or ')
        : (zone ?? ''),
    textable === 'unknown'
      ? 'texting known after a line check'
      : textable === 'no'
        ? 'cannot be texted'
        : 'can be texted',
  ]
    .filter(Boolean)
    .join(' · ')
}

/** What a number is the best for. */
function bestText(e164: string, { bestTo }: ContactStory): string {
  const [toText, toCall] = [bestTo.text === e164, bestTo.call === e164]
  return toText && toCall ? 'best to text and to call' : toText ? 'best to text' : toCall ? 'best to call' : ''
}

function Reach({ story }: { story: ContactStory }) {
  const { contact } = story
  const mayChange = useMayChange()
  const mayForget = mayChange && story.story.every(({ what }) => what.kind !== 'forgotten')
  return (
    <div className="pt-2">
      <ul>
        {story.numbers.map((number) => (
          <li key={number.e164 + number.extension} className="flex items-baseline gap-2">
            <Glyph type={number.lineType} />
            <div>
              <span className="num text-[15px]">{phone(number.e164)}</span>
              {number.extension ? <span className="num text-soft"> ext. {number.extension}</span> : null}
              <p className="text-[13px] text-soft">
                {number.valid
                  ? [
                      `${(LINE[number.lineType] ?? '').toLowerCase()} by ${number.knownFrom === 'register' ? 'a line check' : 'the numbering plan'}`,
                      number.status === 'unknown' ? '' : LINE_STATUS[number.status],
                      number.isShared ? 'shared line' : '',
                      ORIGIN[number.origin],
                    ]
                      .filter(Boolean)
                      .join(' · ')
                  : 'not valid'}
              </p>
              {number.valid ? <p className="text-[13px] text-soft">{placeOf(number)}</p> : null}
              {number.call ? (
                <p className={`text-[13px] ${number.call === 'now' ? 'text-moss' : 'text-soft'}`}>
                  {[bestText(number.e164, story), number.clock ? `${number.clock} there` : '', CALL[number.call]]
                    .filter(Boolean)
                    .join(' · ')}
                </p>
              ) : null}
            </div>
          </li>
        ))}
        {story.emails.map(({ address, kind, state }) => (
          <li key={address} className="break-words">
            {address}{' '}
            <span className="text-[13px] text-soft">
              {[kind, state === 'not-checked' ? '' : ADDRESS[state]].filter(Boolean).join(' · ')}
            </span>
          </li>
        ))}
        {story.numbers.length + story.emails.length === 0 ? (
          <li className="text-soft">No number and no e-mail that can be read.</li>
        ) : null}
      </ul>
      <p className="pt-1">
        <span className="font-semibold">
          <LaneName lane={contact.lane} />
        </span>{' '}
        <span className="text-soft">· {LANE_REASON[contact.laneReason]}</span>
        <LaneChoice contact={contact} />
      </p>
      <SearchOne contact={contact} />
      <Suppression story={story} />
      {mayForget ? <ForgetPerson contactId={contact.id} name={contact.fullName} /> : null}
    </div>
  )
}

function RowAsItStood({ story }: { story: ContactStory }) {
  const shown = story.row.filter(({ cell }) => cell.trim() !== '')
  return (
    <table className="w-full table-fixed text-[13px]">
      <tbody>
        {shown.map(({ heading, cell, field }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: headings may repeat; the order is the file's
          <tr key={i} className="border-t border-line align-top">
            <th scope="row" className="w-[34%] py-1 pr-2 text-left font-normal text-soft">
              {heading}
              <span className="block text-[12px]">{field ? `→ ${FIELD[field]}` : 'kept as extra'}</span>
            </th>
            <td className="num break-words py-1">
              <bdi>{shortened(cell, 400)}</bdi>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
