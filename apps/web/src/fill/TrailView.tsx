import type { TrailPage } from '@upper-field/contract'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useReadTrailInfiniteQuery } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { ReadState } from '../shell/Answer'
import { BenchTitle } from '../shell/Bench'
import { readOn } from '../shell/readOn'
import { PileButton, Sieve } from '../shell/Sieve'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { useNeighbours } from '../shell/useNeighbours'
import { CANDIDATE } from '../words/fill'
import { count, time } from '../words/format'
import { LedgeLegend } from './Ledges'
import { TrailPanel } from './TrailPanel'
import { TrailTable } from './TrailTable'

/** What of the trail is looked at: by whom something was found, and why something was set aside. In the address. */
function useTrailFacets() {
  const [search, setSearch] = useSearchParams()
  const chosen = (name: string) => (search.get(name) ?? '').split(',').filter(Boolean)
  return {
    foundBy: chosen('found'),
    because: chosen('because'),
    toggle: (name: 'found' | 'because', value: string) =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before)
          const values = chosen(name)
          const kept = values.includes(value) ? values.filter((one) => one !== value) : [...values, value]
          if (kept.length > 0) next.set(name, kept.join(','))
          else next.delete(name)
          return next
        },
        { replace: true },
      ),
  }
}

/** The course of each contact through the latest fill, ledge by ledge. */
export function TrailView({ tabs }: { tabs: React.ReactNode }) {
  const view = useListView()
  const facets = useTrailFacets()
  const asked = useReadTrailInfiniteQuery({
    listId: view.listId,
    filter: view.text,
    foundBy: facets.foundBy.join(','),
    because: facets.because.join(','),
  })
  const { currentData: data } = asked
  const lines = useMemo(() => data?.pages.flatMap((page) => page?.lines ?? []) ?? [], [data])
  const first = data?.pages[0] ?? null
  const go = useNeighbours(lines, ({ contactId }) => contactId)
  useKeys({ j: go(1), k: go(-1), Escape: () => view.choose(null) })
  const chosen = lines.find(({ contactId }) => contactId === view.contactId)
  return (
    <div className="flex h-full min-h-0">
      <Sieve piles={['sure', 'country']}>{first ? <Facets page={first} facets={facets} /> : null}</Sieve>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 py-3">
        <div className="-mx-5">{tabs}</div>
        <BenchTitle title="The course of each contact">
          {first ? `${count(first.total)} in the run of ${time(first.startedAt)}` : null}
        </BenchTitle>
        <ReadState of={{ ...asked, data }} what="the trail" />
        {data && !first ? (
          <p className="text-soft">Nobody was asked about contacts of this list yet. The waterfall starts a fill.</p>
        ) : null}
        {first ? <TrailTable lines={lines} total={first.total} onEnd={() => readOn(asked)} /> : null}
        {first ? <LedgeLegend /> : null}
      </main>
      <aside
        aria-label="Course of one contact"
        className="h-full w-[312px] shrink-0 overflow-y-auto border-l border-line bg-surface px-4 py-3"
      >
        {view.contactId === null ? (
          <p className="text-soft">Choose a contact: what was asked, said, checked and paid for it is told here.</p>
        ) : (
          <TrailPanel key={view.contactId} contactId={view.contactId} name={chosen?.fullName ?? ''} />
        )}
      </aside>
    </div>
  )
}

function Facets({ page, facets }: { page: TrailPage; facets: ReturnType<typeof useTrailFacets> }) {
  const named = useServiceNames()
  return (
    <>
      <Facet
        title="Found by"
        counts={page.foundBy}
        chosen={facets.foundBy}
        nameOf={named}
        onToggle={(one) => facets.toggle('found', one)}
      />
      <Facet
        title="Set aside because"
        counts={page.because}
        chosen={facets.because}
        nameOf={(reason) => CANDIDATE[reason] ?? reason}
        onToggle={(one) => facets.toggle('because', one)}
      />
    </>
  )
}

function Facet(props: {
  title: string
  counts: Readonly<Record<string, number>>
  chosen: readonly string[]
  nameOf: (value: string) => string
  onToggle: (value: string) => void
}) {
  const { title, counts, chosen, nameOf, onToggle } = props
  const entries = Object.entries(counts)
  if (entries.length === 0) return null
  const most = Math.max(1, ...entries.map(([, n]) => n))
  return (
    <section className="pb-4">
      <h3 className="px-1 pb-1">{title}</h3>
      <ul>
        {entries.map(([value, n]) => (
          <li key={value}>
            <PileButton isChosen={chosen.includes(value)} share={n / most} n={n} onClick={() => onToggle(value)}>
              <span className="first-letter:uppercase">{nameOf(value)}</span>
            </PileButton>
          </li>
        ))}
      </ul>
    </section>
  )
}
