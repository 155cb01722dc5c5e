/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { EndpointName, PairState, TidyState } from '@upper-field/contract'
import type { ReactElement } from 'react'
import { BringView } from '../../src/bring/BringView'
import { CompareBatches } from '../../src/bring/CompareBatches'
import { HeldRows } from '../../src/bring/HeldRows'
import { ProvidersView } from '../../src/connections/ProvidersView'
import { DestinationsView } from '../../src/destinations/DestinationsView'
import { TrailView } from '../../src/fill/TrailView'
import { ListsView } from '../../src/lists/ListsView'
import { OtherLists } from '../../src/pair/OtherLists'
import { PairBench } from '../../src/pair/PairBench'
import { SharedLinesBench } from '../../src/pair/SharedLinesBench'
import { DispatchView } from '../../src/send/DispatchView'
import { SpendView } from '../../src/spend/SpendView'
import { SuppressionView } from '../../src/suppression/SuppressionView'
import { ChangesTable } from '../../src/tidy/ChangesTable'
import { HandQueue } from '../../src/tidy/HandQueue'
import { batchOf } from './batches'
import { listOf } from './lists'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const REFUSED = 'The database is being started.'
/** What else the views ask for; none of it matters here. */
const BESIDE: Answers = {
  readMe: OPERATOR,
  readToday: { things: [], isWhole: true } as never,
  readJobs: [],
  readPiles: {} as never,
  readEditions: [],
  readDestinations: [],
}

const PAIRS = { ranAt: '2026-11-28T09:00:00Z' } as PairState
const TIDY = { counts: {}, leftOut: [] } as unknown as TidyState
/** What would be said if it were known that there is nothing. */
const NOTHING = /^(No (?!file)|Nobody|Nothing (?!of them)|Everything|There is no)|^None yet|first file|changed nothing/

describe('what could not be read', () => {
  it.each<[EndpointName, ReactElement]>([
    ['readLists', <ListsView key="view" />],
    ['readConnections', <ProvidersView key="view" />],
    ['readSpend', <SpendView key="view" />],
    ['readSuppressionLists', <SuppressionView key="view" />],
    ['readAudiences', <DispatchView key="view" tabs={null} onMakeFile={() => {}} />],
    ['readTrail', <TrailView key="view" tabs={null} />],
    ['readListsBeside', <OtherLists key="view" />],
    ['readSharedLines', <SharedLinesBench key="view" />],
    ['readPairs', <PairBench key="view" state={PAIRS} />],
    ['readDestinations', <DestinationsView key="view" />],
    ['readChanges', <ChangesTable key="view" code="name-case" state={TIDY} />],
    ['readHand', <HandQueue key="view" />],
    ['readBatches', <BringView key="view" />],
    ['readHeld', <HeldRows key="view" batch={batchOf({ held: 3 })} />],
    ['readYields', <CompareBatches key="view" listId="l1" batches={[batchOf({})]} onChoose={() => {}} />],
  ])('says so alone, and can be read again: %s', async (name, view) => {
    let asked = 0
    const refusal = () => {
      asked++
      return new Refusal(503, 'database-away', REFUSED)
    }
    const { user } = rendered(view, { ...BESIDE, [name]: refusal }, '', { list: listOf() })
    const refused = await screen.findByText(REFUSED)
    const before = asked
    const notice = refused.closest('[role=alert]') as HTMLElement
    expect(screen.queryByText(/^Reading /)).toBeNull()
    expect(screen.queryByText(NOTHING)).toBeNull()
    await user.click(within(notice).getByRole('button', { name: 'Read it again' }))
    await waitFor(() => expect(asked).toBe(before + 1))
    expect(await screen.findByText(REFUSED)).toBeTruthy()
  })
})
