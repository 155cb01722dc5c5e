import type { ReactNode } from 'react'
import { useState } from 'react'
import { useReadDestinationsQuery, useReadEditionsQuery } from '../api'
import { Button } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Answer } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { plural } from '../words/format'
import { AudiencePanel } from './AudiencePanel'
import { useReadAudiencesQuery } from './audienceApi'
import { byPressure, isChanging } from './audienceText'
import { Board } from './Board'
import { Editions } from './Editions'
import { NewAudienceDialog } from './NewAudienceDialog'
import { useChosenAudience } from './useChosenAudience'

/** How often the board is read anew while a network or a count is at work, in milliseconds. */
const AT_WORK = 4000

/** The dispatch board: audiences and files of a list, and beside it the one that is open. */
export function DispatchView({ tabs, onMakeFile }: { tabs: ReactNode; onMakeFile: () => void }) {
  const { listId } = useListView()
  const [isAtWork, setIsAtWork] = useState(false)
  const asked = useReadAudiencesQuery({ params: { listId } }, { pollingInterval: isAtWork ? AT_WORK : 0 })
  const { data: destinations = [] } = useReadDestinationsQuery({})
  const { data: editions } = useReadEditionsQuery({ params: { listId } })
  const mayChange = useMayChange()
  const { chosen, choose } = useChosenAudience()
  const [isMaking, setIsMaking] = useState(false)
  const audiences = asked.data?.toSorted((a, b) => byPressure(a, b, Date.now()))
  const isBusy = audiences?.some(isChanging) ?? false
  if (isBusy !== isAtWork) setIsAtWork(isBusy)
  // One that was made just now is open before the board has heard of it.
  const open = chosen ?? audiences?.[0]?.id ?? null
  return (
    <div className="flex h-full min-h-0">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col pt-3">
        {tabs}
        <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 pb-4">
          <div className="flex flex-wrap items-baseline gap-x-3 gap-y-2 pb-3">
            <h1>Dispatch</h1>
            <p className="flex-1 text-soft">
              {audiences && editions
                ? `${plural(audiences.length, 'audience')} · ${plural(editions.length, 'file')}`
                : ''}
            </p>
            {mayChange ? (
              <span className="flex gap-2">
                <Button onClick={onMakeFile}>A file</Button>
                <Button look="main" onClick={() => setIsMaking(true)}>
                  An audience
                </Button>
              </span>
            ) : null}
          </div>
          <Answer
            of={{ ...asked, data: audiences }}
            what="the audiences"
            none={
              <p className="border-y border-line py-3 text-soft">
                No audience is kept anywhere yet. One is made of everybody a filter chooses, for one account at one
                network, and refreshed from here.
              </p>
            }
          >
            {(board) => (
              <Board audiences={board} destinations={destinations} chosen={open} onChoose={choose} now={Date.now()} />
            )}
          </Answer>
          <h2 className="pb-2 pt-5 text-[15px]">Files</h2>
          <Editions />
        </div>
      </main>
      <aside
        aria-label="The open audience"
        className="h-full w-[380px] shrink-0 overflow-y-auto border-l border-line bg-surface px-4 py-3"
      >
        {open ? (
          <AudiencePanel key={open} audienceId={open} onGone={() => choose(null)} />
        ) : (
          <p className="text-soft">An audience opens here: what its next edition changes, and what came of the last.</p>
        )}
      </aside>
      {isMaking ? (
        <NewAudienceDialog
          onClose={() => setIsMaking(false)}
          onMade={(id) => {
            setIsMaking(false)
            choose(id)
          }}
        />
      ) : null}
    </div>
  )
}
