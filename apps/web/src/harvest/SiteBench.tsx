import type { HarvestSite, SiteFinding, SitePage } from '@upper-field/contract'
import { useState } from 'react'
import { Button, Key } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { useKeys } from '../shell/useKeys'
import { countryName, plural, time } from '../words/format'
import { FindingTable, keyOf } from './FindingTable'
import { useDecideFindingMutation, useReadHarvestedSiteQuery, useReadPagesAgainMutation } from './harvestApi'
import { leftOutText, problemOf, siteLine } from './harvestText'
import { PageText } from './PageText'
import type { MarkedText } from './TeachFormat'

/** A page of a site with its findings marked, and beneath it what was found at the site. */
export function SiteBench(props: {
  harvestId: string
  site: string
  state: HarvestSite | undefined
  mayChange: boolean
  isReading: boolean
  onMark: (marked: MarkedText) => void
  onNext: () => void
}) {
  const { harvestId, site, state, mayChange, isReading, onMark, onNext } = props
  const asked = useReadHarvestedSiteQuery({ params: { harvestId }, query: { site } })
  const data = lastRead(asked)
  const [decide, decided] = useDecideFindingMutation()
  const [readAgain, reading] = useReadPagesAgainMutation()
  const [pageId, setPageId] = useState<number | null>(null)
  // By what they are, not by their places: while pages are still read, findings come in between.
  const [chosenKey, setChosenKey] = useState<string | null>(null)
  const [correctingKey, setCorrectingKey] = useState<string | null>(null)
  const findings = data?.findings ?? []
  const placeOf = (key: string | null) => findings.findIndex((one) => keyOf(one) === key)
  const at = Math.max(0, placeOf(chosenKey))
  const chosen = findings[at]
  const choose = (place: number) => {
    const one = findings[place]
    if (one) setChosenKey(keyOf(one))
  }
  const act = async (
    decision: 'taken' | 'dropped' | null,
    { of = chosen, corrected = null }: { of?: SiteFinding | undefined; corrected?: string | null } = {},
  ) => {
    if (!of || !mayChange) return
    const { kind, value } = of
    const done = await decide({ params: { harvestId }, body: { site, kind, value, decision, corrected } })
    if ('error' in done) return
    setCorrectingKey(null)
    if (decision !== null) choose(placeOf(keyOf(of)) + 1)
  }
  useKeys({
    j: () => choose(at + 1),
    k: () => choose(at - 1),
    Enter: () => void act('taken'),
    x: () => void act('dropped'),
    u: () => void act(null),
    e: () => {
      choose(at)
      if (chosen && mayChange) setCorrectingKey(keyOf(chosen))
    },
    n: onNext,
  })
  if (!data) return <Unanswered of={[asked]} what={site} />
  const onPage = (page: SitePage) => findings.some(({ pages }) => pages.includes(page.url))
  const page =
    data.pages.find(({ id }) => id === pageId) ??
    data.pages.find((one) => chosen?.pages.includes(one.url)) ??
    data.pages.find(onPage) ??
    data.pages.find((one) => one.state === 'read') ??
    data.pages[0]
  const failed = data.pages.filter((one) => one.state === 'failed' || one.state === 'not-read')
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3 pb-2">
        <h1>{site}</h1>
        <p className="text-soft">{page ? aboutPage(page) : ''}</p>
      </div>
      {state && (state.state === 'forbidden' || state.state === 'unreachable') ? (
        <Notice tone={state.state === 'forbidden' ? 'look' : 'bad'}>
          Nothing of this site was read: {siteLine(state).text}.
        </Notice>
      ) : null}
      {data.business?.name ? (
        <p className="pb-2">
          <span className="font-semibold">{data.business.name}</span>
          <span className="text-soft">
            {[data.business.address, ...data.business.openingHours].filter(Boolean).map((one) => ` · ${one}`)}
          </span>
        </p>
      ) : null}
      {data.pages.length > 1 ? (
        <nav aria-label="Pages of the site" className="flex flex-wrap gap-x-3 gap-y-1 pb-2 text-[13px]">
          {data.pages.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={one.id === page?.id}
              title={problemOf(one.problem)}
              className={`rounded-small px-1.5 py-0.5 ${one.id === page?.id ? 'bg-lichen font-semibold' : 'hover:bg-lichen'} ${one.state === 'read' ? '' : 'text-soft line-through'}`}
              onClick={() => setPageId(one.id)}
            >
              {pathOf(one.url)}
            </button>
          ))}
          {state && state.pages > data.pages.length ? (
            <span className="py-0.5 text-soft">{plural(state.pages - data.pages.length, 'more page')}, not shown</span>
          ) : null}
        </nav>
      ) : null}
      {page ? (
        page.state === 'read' ? (
          <PageText page={page} findings={findings} chosen={at} onChoose={choose} onMark={onMark} />
        ) : (
          <p className="rounded-small border border-line bg-surface px-4 py-3 text-soft">
            {page.state === 'waiting' || page.state === 'reading'
              ? 'This page waits for its turn.'
              : `Not read: ${problemOf(page.problem)}.`}
          </p>
        )
      ) : null}
      {failed.length > 0 && mayChange && !isReading && state?.state !== 'forbidden' ? (
        <p className="pt-2">
          <Button onClick={() => void readAgain({ params: { harvestId }, body: { site } })}>
            Read again what failed here
          </Button>
        </p>
      ) : null}
      <Refused by={[reading]} />
      <div className="flex items-baseline justify-between pb-1 pt-4">
        <h2 className="text-[15px]">What was found</h2>
        {mayChange && findings.length > 0 ? (
          <span className="flex items-center gap-2 text-[13px] text-soft">
            <Key>Enter</Key> take <Key>x</Key> drop <Key>e</Key> correct <Key>u</Key> undo <Key>n</Key> next site
          </span>
        ) : null}
      </div>
      <Refused by={[decided]} />
      <FindingTable
        findings={findings}
        chosen={at}
        correcting={correctingKey === null ? null : placeOf(correctingKey)}
        mayChange={mayChange}
        onChoose={choose}
        onTake={() => void act('taken')}
        onDrop={() => void act('dropped')}
        onCorrect={(of, corrected) => void act('taken', { of, corrected })}
        onGiveUp={() => setCorrectingKey(null)}
      />
      {page && page.leftOut.length > 0 ? (
        <p className="pt-2 text-[13px] text-soft">Left out on this page: {leftOutText(page.leftOut)}.</p>
      ) : null}
    </>
  )
}

const aboutPage = ({ url, country, fetchedAt }: SitePage): string =>
  [pathOf(url), country ? countryName(country) : '', fetchedAt ? `read ${time(fetchedAt)}` : '']
    .filter(Boolean)
    .join(' · ')

function pathOf(url: string): string {
  const { pathname, search } = new URL(url)
  return `${pathname}${search}`
}
