import type { Harvest, List } from '@upper-field/contract'
import { Link, useOutletContext } from 'react-router'
import { BringPart } from '../bring/BringPart'
import { useMayChange } from '../people/useRole'
import { useLatest } from '../shell/useLatest'
import { useListView } from '../shell/useListView'
import { count, date, plural } from '../words/format'
import { useReadHarvestsQuery } from './harvestApi'
import { NewHarvestForm } from './NewHarvestForm'

/** Bring in, from pages: what was read so far, and what is to be read. */
export function PagesView() {
  const list = useOutletContext<List>()
  const { listId } = useListView()
  const { limit, more } = useLatest(50)
  const harvests = useReadHarvestsQuery({ params: { listId }, query: { limit } })
  const mayChange = useMayChange()
  const mayRead = mayChange && !list.archivedAt
  return (
    <BringPart
      label="Pages read"
      title="Pages read"
      emptyText="None yet."
      all={harvests}
      more={more}
      line={(harvest) => <HarvestLink harvest={harvest} />}
    >
      {mayRead ? (
        <NewHarvestForm listId={listId} />
      ) : (
        <p className="text-soft">
          {list.archivedAt ? 'This list is archived.' : 'Your role is viewer: only operators have pages read.'}
        </p>
      )}
    </BringPart>
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
