import { useState } from 'react'
import { NotConnected } from '../connections/NotConnected'
import { useProviders } from '../connections/useConnected'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, EMAIL, NAME, NUMBER } from '../shell/columns'
import { useListView } from '../shell/useListView'
import { FillPlanPanel } from './FillPlanPanel'
import { Waterfall } from './Waterfall'

const COLUMNS = [NAME, COMPANY, NUMBER, EMAIL]

/** Fill: who is asked for missing mobiles, in which order, and what each gave. */
export function FillView() {
  const [chosen, setOrder] = useState<readonly string[] | null>(null)
  const [checksLines, setChecksLines] = useState(true)
  const { listId } = useListView()
  const providers = useProviders()
  const order = chosen ?? providers?.map(({ provider }) => provider) ?? []
  const hasProviders = providers === null || providers.length > 0
  return (
    <Bench
      piles={['line', 'country', 'batch']}
      advice={
        hasProviders ? (
          <FillPlanPanel order={order} checksLines={checksLines} setChecksLines={setChecksLines} />
        ) : (
          <NotConnected
            title="No provider is connected"
            next={`/lists/${listId}/split`}
            nextText="Next: split by channel"
          >
            Missing numbers are asked for at providers, in turn, until one gives a usable one.
          </NotConnected>
        )
      }
    >
      {hasProviders ? (
        <>
          <BenchTitle title="Who is asked, in which order">
            the first usable mobile ends the search for a contact
          </BenchTitle>
          <Waterfall order={order} setOrder={setOrder} checksLines={checksLines} />
        </>
      ) : null}
      <h2 className="pt-4 pb-2 text-[15px]">Contacts without a mobile</h2>
      <ContactGrid columns={COLUMNS} extraFilter="is:no-mobile" emptyText="Everybody has a mobile." />
    </Bench>
  )
}
