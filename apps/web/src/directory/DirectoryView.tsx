import type { DirectorySearch, List } from '@upper-field/contract'
import { Link, useOutletContext } from 'react-router'
import { useReadConnectionsQuery, useReadJobsQuery, useReadMeQuery } from '../api'
import { BringPart } from '../bring/BringPart'
import { NotConnected } from '../connections/NotConnected'
import { Unanswered } from '../shell/Answer'
import { useLatest } from '../shell/useLatest'
import { useListView } from '../shell/useListView'
import { count, date, money } from '../words/format'
import { useReadDirectorySearchesQuery } from './directoryApi'
import { standsAt } from './directoryText'
import { NewSearchForm } from './NewSearchForm'

/** Bring in, from directories: what was fetched so far, and what is to be fetched. */
export function DirectoryView() {
  const list = useOutletContext<List>()
  const { listId } = useListView()
  const { limit, more } = useLatest(50)
  const searches = useReadDirectorySearchesQuery({ params: { listId }, query: { limit } })
  return (
    <BringPart
      label="Fetched from directories"
      title="Fetched"
      emptyText="Nothing yet."
      all={searches}
      more={more}
      line={(search) => <SearchLink search={search} />}
    >
      <Beginning list={list} />
    </BringPart>
  )
}

function Beginning({ list }: { list: List }) {
  const connected = useReadConnectionsQuery({})
  const { data: me } = useReadMeQuery({})
  const connections = connected.data
  if (!connections || !me) return <Unanswered of={[connected]} what="which directories are connected" />
  if (me.role === 'viewer' || list.archivedAt)
    return (
      <p className="text-soft">
        {list.archivedAt ? 'This list is archived.' : 'Your role is viewer: only operators fetch from directories.'}
      </p>
    )
  const directories = connections.filter(({ role, hasKey }) => role === 'directory' && hasKey)
  if (directories.length === 0)
    return (
      <NotConnected title="No directory is connected" next={`/lists/${list.id}/bring`} nextText="Bring in a file">
        A directory of businesses gives those of a trade at a place. An owner can connect one under Providers.
      </NotConnected>
    )
  return <NewSearchForm listId={list.id} directories={directories} />
}

function SearchLink({ search }: { search: DirectorySearch }) {
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId: search.listId } })
  return (
    <Link
      to={`/lists/${search.listId}/bring/directory/${search.id}`}
      className="block rounded-small px-2 py-2 hover:bg-lichen"
    >
      <span className="flex justify-between gap-2">
        <span className="truncate font-semibold">{search.name}</span>
        <span className="num">{count(search.became.taken ?? 0)}</span>
      </span>
      <span className="block text-[13px] text-soft">
        {date(search.madeAt)} ·{' '}
        {standsAt(
          search,
          jobs.find(({ id }) => id === search.jobId),
        )}
        , {money(search.spent)}
      </span>
    </Link>
  )
}
