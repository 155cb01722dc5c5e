import type { DestinationDocument } from '@upper-field/contract'
import { headingsOf } from '@upper-field/core/send'
import { useState } from 'react'
import { Link } from 'react-router'
import { useKeepDestinationMutation, useReadDestinationsQuery, useReadShippedDestinationsQuery } from '../api'
import { Button, ButtonLink, TextButton } from '../kit/Button'
import { useIsOwner } from '../people/useRole'
import { useReadDestinationKeysQuery } from '../send/audienceApi'
import { ReadState, Refused } from '../shell/Answer'
import { count, plural } from '../words/format'
import { KeyDialog } from './KeyDialog'

/** Ad networks that audiences are prepared for: what each takes, and by which rules. */
export function DestinationsView() {
  const asked = useReadDestinationsQuery({})
  const { data } = asked
  const { data: shipped = [] } = useReadShippedDestinationsQuery({})
  const [keep, keeping] = useKeepDestinationMutation()
  const isOwner = useIsOwner()
  const others = shipped.filter(({ id }) => !data?.some((one) => one.id === id))
  return (
    <main className="mx-auto h-full max-w-6xl overflow-y-auto px-6 py-6">
      <div className="flex items-start justify-between gap-4 pb-4">
        <div>
          <h1 className="pb-1">Destinations</h1>
          <p className="text-soft">Ad networks that audiences are prepared for, each by what it declares to accept.</p>
        </div>
        {isOwner ? (
          <ButtonLink to="/destinations/new" look="main" className="shrink-0">
            Add a destination
          </ButtonLink>
        ) : null}
      </div>
      <ReadState of={asked} what="the destinations" />
      <Refused by={[keeping]} />
      {data?.length === 0 ? (
        <p className="border-y border-line py-4">
          No destination is there yet. Files for people need none; audiences begin with one.
        </p>
      ) : null}
      {data && data.length > 0 ? <DestinationTable all={data} isOwner={isOwner} /> : null}
      {isOwner && data && others.length > 0 ? (
        <section aria-label="Destinations that come with the application" className="pt-6">
          <h2 className="pb-1">At hand</h2>
          <ul>
            {others.map((one) => (
              <li key={one.id} className="flex items-center justify-between gap-4 border-b border-line py-2">
                <span>
                  <span className="font-semibold">{one.name}</span> <span className="text-soft">{one.about}</span>
                </span>
                <Button
                  disabled={keeping.isLoading}
                  onClick={() => void keep({ params: { destinationId: one.id }, body: one })}
                >
                  Add {one.name}
                </Button>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </main>
  )
}

function DestinationTable({ all, isOwner }: { all: readonly DestinationDocument[]; isOwner: boolean }) {
  const { data: keys = [] } = useReadDestinationKeysQuery({})
  const [opened, setOpened] = useState<DestinationDocument | null>(null)
  const keyOf = (id: string) => keys.find(({ destination }) => destination === id)
  return (
    <>
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1 font-normal">Destination</th>
            <th className="font-normal">Takes</th>
            <th className="font-normal">Identifiers</th>
            <th className="font-normal">Size</th>
            <th className="font-normal">Membership</th>
            <th className="font-normal">Delivery</th>
          </tr>
        </thead>
        <tbody>
          {all.map((one) => (
            <tr key={one.id} className="border-b border-line align-top">
              <td className="max-w-[300px] py-2 pr-4">
                <Link to={`/destinations/${one.id}`} className="font-semibold text-slate underline underline-offset-2">
                  {one.name}
                </Link>
                <div className="text-[13px] text-soft">{one.about}</div>
              </td>
              <td className="py-2 pr-4">
                {one.audiences.map((shape) => (
                  <div key={shape.takes}>
                    {shape.takes}
                    <span className="text-[13px] text-soft"> · {plural(headingsOf(shape).length, 'column')}</span>
                  </div>
                ))}
              </td>
              <td className="py-2 pr-4">{HASHING[one.hashing]}</td>
              <td className="py-2 pr-4 text-[13.5px]">{sizeText(one)}</td>
              <td className="py-2 text-[13.5px]">
                {one.lapsesAfterDays === null ? 'does not lapse' : `lapses after ${count(one.lapsesAfterDays)} days`}
                <div className="text-soft">
                  {one.changes === 'whole' ? 'replaced whole' : 'people are added and removed'}
                </div>
              </td>
              <td className="py-2 text-[13.5px]">
                {one.network === null ? 'by file' : keyOf(one.id) ? 'delivered by us' : 'by file, until there is a key'}
                {one.network !== null && isOwner ? (
                  <div>
                    <TextButton onClick={() => setOpened(one)}>
                      {keyOf(one.id) ? 'Change the key' : 'Give the key'}
                    </TextButton>
                  </div>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {opened ? <KeyDialog destination={opened} kept={keyOf(opened.id)} onClose={() => setOpened(null)} /> : null}
    </>
  )
}

const HASHING: Readonly<Record<DestinationDocument['hashing'], string>> = {
  always: 'always hashed',
  never: 'never hashed',
  either: 'hashed or plain',
}

function sizeText({ size, file }: DestinationDocument): string {
  const parts = [
    size.fewest === null ? '' : `at least ${count(size.fewest)} rows`,
    size.fewestMatched === null ? '' : `of use from ${count(size.fewestMatched)} matched`,
    size.toldFrom === null ? '' : `told from ${count(size.toldFrom)} on`,
    file.mostRows === null ? '' : `${count(file.mostRows)} rows in a file`,
  ]
  return parts.filter(Boolean).join(', ') || 'any'
}
