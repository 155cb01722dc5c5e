import { useState } from 'react'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, EMAIL, NAME, NUMBER } from '../shell/columns'
import { FillPlanPanel } from './FillPlanPanel'
import { Waterfall } from './Waterfall'

const COLUMNS = [NAME, COMPANY, NUMBER, EMAIL]

/** Fill: who is asked for missing mobiles, in which order, and what each gave. */
export function FillView() {
  const [order, setOrder] = useState<readonly string[]>(['tansy', 'brindle'])
  const [checksLines, setChecksLines] = useState(true)
  return (
    <Bench
      piles={['line', 'country', 'batch']}
      advice={<FillPlanPanel order={order} checksLines={checksLines} setChecksLines={setChecksLines} />}
    >
      <BenchTitle title="Who is asked, in which order">
        the first usable mobile ends the search for a contact
      </BenchTitle>
      <Waterfall order={order} setOrder={setOrder} checksLines={checksLines} />
      <h2 className="pt-4 pb-2 text-[15px]">Contacts without a mobile</h2>
      <ContactGrid columns={COLUMNS} extraFilter="is:no-mobile" emptyText="Everybody has a mobile." />
    </Bench>
  )
}
