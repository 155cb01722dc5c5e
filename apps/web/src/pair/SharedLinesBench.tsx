import type { SharedLine } from '@upper-field/contract'
import { useReadSharedLinesInfiniteQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Glyph } from '../kit/Glyph'
import { Empty } from '../kit/Notice'
import { ReadState } from '../shell/Answer'
import { BenchTitle } from '../shell/Bench'
import { useListView } from '../shell/useListView'
import { count, phone } from '../words/format'
import { SHARED_KIND } from '../words/pairing'

/** Numbers that several people hold, with who: a reason not to join them. */
export function SharedLinesBench() {
  const { listId } = useListView()
  const asked = useReadSharedLinesInfiniteQuery({ listId })
  const { data, hasNextPage, fetchNextPage } = asked
  const lines = data?.pages.flatMap((page) => page.lines) ?? []
  const total = data?.pages[0]?.total
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 pb-3">
      <BenchTitle title="Shared lines">
        {total ? `${count(total)} numbers that several contacts hold; sharing one joins nobody` : null}
      </BenchTitle>
      <ReadState of={asked} what="the shared lines" />
      {total === 0 ? (
        <Empty title="Nobody shares a line">
          <p className="text-soft">A number that contacts of different names hold is shown here, with who they are.</p>
        </Empty>
      ) : null}
      {lines.length > 0 ? (
        <table className="w-full" aria-label="Shared lines">
          <thead className="text-left text-[13px] text-soft">
            <tr className="border-b border-edge">
              <th className="py-1 pl-2">Number</th>
              <th className="pl-4">Kind</th>
              <th className="whitespace-nowrap text-right">Held by</th>
              <th className="pl-5">Who</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <Line key={line.e164} line={line} />
            ))}
          </tbody>
        </table>
      ) : null}
      {hasNextPage ? (
        <Button className="mt-3 self-start" onClick={() => void fetchNextPage()}>
          Show more
        </Button>
      ) : null}
    </div>
  )
}

function Line({ line: { e164, lineType, kind, holders, who } }: { line: SharedLine }) {
  const view = useListView()
  const more = holders - who.length
  // What all of them say is told once.
  const companies = new Set(who.map(({ company }) => company))
  const [house = ''] = companies.size === 1 ? companies : []
  return (
    <tr className="border-b border-line align-baseline">
      <td className="num whitespace-nowrap py-1.5 pl-2">
        <span className="pr-2">
          <Glyph type={lineType} />
        </span>
        {phone(e164)}
      </td>
      <td className="whitespace-nowrap py-1.5 pl-4 first-letter:uppercase">
        {SHARED_KIND[kind]}
        {house ? <span className="block max-w-52 truncate text-soft">{house}</span> : null}
      </td>
      <td className="num text-right">{count(holders)}</td>
      <td className="py-1.5 pl-5">
        <ul className="flex flex-wrap gap-x-3">
          {who.map(({ contactId, fullName, company }) => (
            <li key={contactId}>
              <TextButton onClick={() => view.choose(contactId)}>
                <bdi>{fullName || 'No name'}</bdi>
              </TextButton>
              {company && !house ? <span className="text-soft"> {company}</span> : null}
            </li>
          ))}
          {more > 0 ? <li className="text-soft">and {count(more)} more</li> : null}
        </ul>
      </td>
    </tr>
  )
}
