import { type HarvestSite, isUnderWay, type List } from '@upper-field/contract'
import { useState } from 'react'
import { Link, useOutletContext, useParams, useSearchParams } from 'react-router'
import { useReadJobsQuery } from '../api'
import { useMayChange } from '../people/useRole'
import { lastRead, Unanswered } from '../shell/Answer'
import { HarvestSoFar } from './HarvestSoFar'
import { useReadHarvestQuery } from './harvestApi'
import { SiteBench } from './SiteBench'
import { SiteList } from './SiteList'
import { type MarkedText, TeachFormat } from './TeachFormat'

/** Pages beside what was found on them: confirmed, dropped and corrected, and formats taught by example. */
export function HarvestView() {
  const list = useOutletContext<List>()
  const { harvestId = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const [marked, setMarked] = useState<MarkedText | null>(null)
  const [settled, setSettled] = useState<string | null>(null)
  const asked = useReadHarvestQuery({ params: { harvestId } })
  const harvest = lastRead(asked)
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId: list.id } })
  const mayChange = useMayChange() && !list.archivedAt
  if (!harvest) return <Unanswered of={[asked]} what="what was read" />
  const job = jobs.find(({ id }) => id === harvest.jobId)
  const wanted = search.get('site')
  const told = harvest.ofSites.find((one) => one.site === wanted) ?? harvest.ofSites.find((one) => one.site === settled)
  const suggested = told ?? suggestedSite(harvest.ofSites)
  const site = suggested?.site ?? null
  // Where something is to be seen the view stays, whatever is read or decided meanwhile.
  if (!told && suggested && hasFindings(suggested)) setSettled(suggested.site)
  const choose = (name: string) => {
    setMarked(null)
    setSearch({ site: name }, { replace: true })
  }
  return (
    <div className="flex h-full min-h-0">
      <aside aria-label="Sites" className="flex h-full w-[244px] shrink-0 flex-col border-r border-line">
        <Link
          to={`/lists/${list.id}/bring/pages`}
          className="px-4 pt-3 text-[13px] text-slate underline underline-offset-2"
        >
          All pages read
        </Link>
        <SiteList harvest={harvest} job={job} chosen={site} mayChange={mayChange} onChoose={choose} />
      </aside>
      <main className="min-w-0 flex-1 overflow-y-auto px-5 py-3">
        {site ? (
          <SiteBench
            key={site}
            harvestId={harvest.id}
            site={site}
            state={harvest.ofSites.find((one) => one.site === site)}
            mayChange={mayChange && harvest.batchId === null}
            isReading={job !== undefined && isUnderWay(job)}
            onMark={setMarked}
            onNext={() => {
              const at = harvest.ofSites.findIndex((one) => one.site === site)
              const later = [...harvest.ofSites.slice(at + 1), ...harvest.ofSites.slice(0, at)]
              const next = later.find(({ toLookAt }) => toLookAt > 0)
              if (next) choose(next.site)
            }}
          />
        ) : (
          <p className="text-soft">No site is to be read.</p>
        )}
      </main>
      <aside
        aria-label="Formats and the batch"
        className="h-full w-[300px] shrink-0 overflow-y-auto border-l border-line bg-surface px-4 py-3"
      >
        <TeachFormat harvestId={harvest.id} marked={marked} mayChange={mayChange} onDone={() => setMarked(null)} />
        <HarvestSoFar harvest={harvest} job={job} mayChange={mayChange} />
      </aside>
    </div>
  )
}

const hasFindings = ({ toLookAt, numbers, emails }: HarvestSite): boolean => toLookAt + numbers + emails > 0

/** The site to begin with: one with something to look at, else one where something was found. */
const suggestedSite = (sites: readonly HarvestSite[]): HarvestSite | undefined =>
  sites.find(({ toLookAt }) => toLookAt > 0) ?? sites.find(hasFindings) ?? sites[0]
