import type { List } from '@upper-field/contract'
import { useState } from 'react'
import { useOutletContext } from 'react-router'
import { useReadBatchesQuery, useReadJobsQuery, useReadMeQuery } from '../api'
import { Empty } from '../kit/Notice'
import { JobLine } from '../shell/JobStrip'
import { StoryPanel } from '../shell/StoryPanel'
import { useListView } from '../shell/useListView'
import { Batches } from './Batches'
import { DropZone } from './DropZone'
import { HeldRows } from './HeldRows'
import { Specimen } from './Specimen'

/** Bring in: the batches of the list, and a file opened like a specimen before any of it is sent. */
export function BringView() {
  const list = useOutletContext<List>()
  const { listId, contactId } = useListView()
  const [file, setFile] = useState<File | null>(null)
  const { data: me } = useReadMeQuery({})
  const { data: batches = [] } = useReadBatchesQuery({ params: { listId } })
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const [chosenBatch, setChosenBatch] = useState<string | null>(null)
  const mayBring = me?.role !== 'viewer' && !list.archivedAt
  if (file && mayBring) {
    return (
      <Specimen
        key={`${file.name}${file.size}${file.lastModified}`}
        file={file}
        listId={listId}
        onDone={(batchId) => {
          setFile(null)
          setChosenBatch(batchId)
        }}
        onCancel={() => setFile(null)}
      />
    )
  }
  const batch =
    batches.find(({ id }) => id === chosenBatch) ?? batches.findLast(({ held }) => held > 0) ?? batches.at(-1)
  const job = jobs.find(({ id }) => id === batch?.jobId)
  return (
    <div className="flex h-full min-h-0">
      <aside aria-label="Batches" className="h-full w-[260px] shrink-0 overflow-y-auto border-r border-line px-3 py-3">
        <Batches batches={batches} chosen={batch?.id ?? null} onChoose={setChosenBatch} />
      </aside>
      <main className="min-w-0 flex-1 overflow-y-auto px-5 py-3">
        {batch ? (
          <HeldRows batch={batch} isViewer={me?.role === 'viewer'} job={job ? <JobLine job={job} /> : null} />
        ) : (
          <Empty title="Bring in the first file">
            <p>A CSV of prospects, as messy as it is. It is looked at here first; nothing is sent until you say so.</p>
          </Empty>
        )}
        {mayBring ? <DropZone onFile={setFile} /> : null}
      </main>
      {contactId !== null ? (
        <aside aria-label="Story" className="h-full w-[312px] shrink-0 border-l border-line bg-surface">
          <StoryPanel contactId={contactId} />
        </aside>
      ) : null}
    </div>
  )
}
