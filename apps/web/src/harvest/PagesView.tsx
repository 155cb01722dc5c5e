import type { Harvest, List } from '@upper-field/contract'
import { Link, useOutletContext } from 'react-router'
import { problemText, useReadMeQuery } from '../api'
import { BringTabs } from '../bring/BringTabs'
import { Notice } from '../kit/Notice'
import { useListView } from '../shell/useListView'
import { count, date, plural } from '../words/format'
import { useReadHarvestsQuery } from './harvestApi'
import { NewHarvestForm } from './NewHarvestForm'

/** Bring in, from pages: what was read so far, and what is to be read. */
export function PagesView() {
  const list = useOutletContext<List>()
  const { listId } = useListView()
  const { data: harvests = [], error } = useReadHarvestsQuery({ params: { listId } })
  const { data: me } = useReadMeQuery({})
  const mayRead = me !== undefined && me.role !== 'viewer' && !list.archivedAt
  return (
    <div className="flex h-full min-h-0">
      <aside
        aria-label="Pages read"
        className="h-full w-[260px] shrink-0 overflow-y-auto border-r border-line px-3 py-3"
      >
        <h2 className="px-2 pb-2 text-[15px]">Pages read</h2>
        {error ? <Notice tone="bad">{problemText(error)}</Notice> : null}
        {harvests.length === 0 ? <p className="px-2 text-soft">None yet.</p> : null}
        <ul>
          {harvests.map((harvest) => (
            <li key={harvest.id} className="border-b border-line">
              <HarvestLink harvest={harvest} />
            </li>
          ))}
        </ul>
      </aside>
      <main className="min-w-0 flex-1 overflow-y-auto pt-3">
        <BringTabs />
        <div className="max-w-[720px] px-5 pb-5">
          {mayRead ? (
            <NewHarvestForm listId={listId} />
          ) : (
            <p className="text-soft">
              {list.archivedAt ? 'This list is archived.' : 'Your role is viewer: only operators have pages read.'}
            </p>
          )}
        </div>
      </main>
    </div>
  )
}

function HarvestLink({ harvest }: { harvest: Harvest }) {
  return (
    <Link
      to={`/lists/${harvest.listId}/bring/pages/${harvest.id}`}
      className="block rounded-small px-2 py-2 hover:bg-lichen"
    >
      <span className="flex justify-between gap-2">
        <span className="truncate font-semibold">{harvest.name}</span>
        <span className="num">{count(harvest.numbers)}</span>
      </span>
      <span className="block text-[13px] text-soft">
        {date(harvest.madeAt)} · {harvest.sitesRead} of {plural(harvest.sites, 'site')} read
      </span>
      <span className="block text-[13px]">
        {harvest.batchId ? (
          <span className="text-soft">became a batch</span>
        ) : harvest.toLookAt > 0 ? (
          <span className="text-straw-ink">{plural(harvest.toLookAt, 'value')} to look at</span>
        ) : (
          <span className="text-soft">not taken yet</span>
        )}
      </span>
    </Link>
  )
}
