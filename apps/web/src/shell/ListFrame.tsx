import { STAGES, type Stage } from '@upper-field/core/story'
import { useState } from 'react'
import { Link, Outlet, useLocation, useNavigate } from 'react-router'
import { isNotFound, useReadListQuery } from '../api'
import { lastRead, Unanswered } from './Answer'
import { InHeader } from './InHeader'
import { JobStrip } from './JobStrip'
import { NotThere } from './NotThere'
import { SearchBox } from './SearchBox'
import { Shortcuts } from './Shortcuts'
import { Terrace } from './Terrace'
import { useKeys } from './useKeys'
import { useListView } from './useListView'

const LETTER: Record<Stage, string> = { bring: 'b', tidy: 't', pair: 'p', check: 'c', fill: 'f', split: 's', send: 'n' }

/** The frame of one list. Nothing is carried into another: no draft, no choice, nothing that was read. */
export function ListFrame() {
  const { listId } = useListView()
  return <FrameOf key={listId} listId={listId} />
}

/** Its name, search and jobs above, the terrace, and the open stage below. */
function FrameOf({ listId }: { listId: string }) {
  const asked = useReadListQuery({ params: { listId } })
  const list = lastRead(asked)
  const place = useLocation().pathname.split('/')[3]
  const stage = STAGES.find((one) => one === place)
  const navigate = useNavigate()
  const [showsShortcuts, setShortcuts] = useState(false)
  useKeys({
    ...Object.fromEntries(STAGES.map((one) => [`g ${LETTER[one]}`, () => void navigate(`/lists/${listId}/${one}`)])),
    'g l': () => void navigate('/lists'),
    '/': () => document.getElementById('list-filter')?.focus(),
    '?': () => setShortcuts(true),
  })
  if (!list && isNotFound(asked.error)) return <NotThere />
  if (!list) return <Unanswered of={[asked]} what="the list" />
  return (
    <div className="flex h-full flex-col">
      <InHeader place="list-name">
        <span className="h-5 border-l border-edge" />
        <Link to={`/lists/${listId}`} className="truncate font-semibold">
          {list.name}
        </Link>
        {list.archivedAt ? <span className="text-straw-ink">archived</span> : null}
      </InHeader>
      <InHeader place="list-search">
        <JobStrip listId={listId} />
        <SearchBox />
      </InHeader>
      <Terrace list={list} open={stage} />
      <div className="min-h-0 flex-1">
        <Outlet context={list} />
      </div>
      <Shortcuts isOpen={showsShortcuts} stage={stage} onClose={() => setShortcuts(false)} letters={LETTER} />
    </div>
  )
}
