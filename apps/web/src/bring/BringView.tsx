import type { List } from '@upper-field/contract'
import { useState } from 'react'
import { useOutletContext } from 'react-router'
import { useReadBatchesQuery, useReadJobsQuery } from '../api'
import { Empty } from '../kit/Notice'
import { useMayChange } from '../people/useRole'
import { Answer } from '../shell/Answer'
import { JobLine } from '../shell/JobStrip'
import { StoryPanel } from '../shell/StoryPanel'
import { useListView } from '../shell/useListView'
import { Batches } from './Batches'
import { BatchView } from './BatchView'
import { BringTabs } from './BringTabs'
import { CompareBatches } from './CompareBatches'
import { DropZone } from './DropZone'
import { FilesOnBench } from './FilesOnBench'
import { Specimen } from './Specimen'
import { useBenchFiles } from './useBenchFiles'

/** Bring in: the batches of the list, and files opened like specimens before any of them is sent. */
export function BringView() {
  const list = useOutletContext<List>()
  const { listId, contactId } = useListView()
  const bench = useBenchFiles()
  const mayChange = useMayChange()
  const asked = useReadBatchesQuery({ params: { listId } })
  const { data: batches = [] } = asked
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const [chosen, setChosen] = useState<string | 'compare' | null>(null)
  const mayBring = mayChange && !list.archivedAt
  if (bench.items.length > 0 && mayBring) {
    return (
      <div className="flex h-full min-h-0">
        {bench.items.length > 1 ? <FilesOnBench {...bench} onShow={bench.show} /> : null}
        {bench.items.map((item) => (
          <Specimen
            key={item.id}
            item={item}
            listId={listId}
            isShown={item.id === bench.shown}
            onState={(state) => bench.tell(item.id, state)}
            onSent={(batchId) => {
              bench.remove(item.id)
              setChosen(batchId)
            }}
            onRemove={() => bench.remove(item.id)}
            onSheet={(sheet) => bench.add([item.file], sheet)}
          />
        ))}
      </div>
    )
  }
  const batch = batches.find(({ id }) => id === chosen) ?? batches.findLast(({ held }) => held > 0) ?? batches.at(-1)
  const job = jobs.find(({ id }) => id === batch?.jobId)
  return (
    <div className="flex h-full min-h-0">
      <aside aria-label="Batches" className="h-full w-[260px] shrink-0 overflow-y-auto border-r border-line px-3 py-3">
        <Answer of={asked} what="the batches">
          {(all) => (
            <Batches batches={all} chosen={chosen === 'compare' ? chosen : (batch?.id ?? null)} onChoose={setChosen} />
          )}
        </Answer>
      </aside>
      <main className="min-w-0 flex-1 overflow-y-auto pt-3">
        <BringTabs />
        <div className="px-5 pb-3">
          {chosen === 'compare' && batches.length > 0 ? (
            <CompareBatches listId={listId} batches={batches} onChoose={setChosen} />
          ) : batch ? (
            <BatchView key={batch.id} batch={batch} mayChange={mayBring} job={job ? <JobLine job={job} /> : null} />
          ) : asked.data === undefined ? null : (
            <Empty title="Bring in the first file">
              <p>
                Lists of prospects, as messy as they are. They are looked at here first; nothing is sent until you say
                so.
              </p>
            </Empty>
          )}
          {mayBring ? <DropZone onFiles={(files) => bench.add(files)} /> : null}
        </div>
      </main>
      {contactId !== null ? (
        <aside aria-label="Story" className="h-full w-[312px] shrink-0 border-l border-line bg-surface">
          <StoryPanel key={contactId} contactId={contactId} />
        </aside>
      ) : null}
    </div>
  )
}
