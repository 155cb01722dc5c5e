import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COUNTRY, EMAIL, LANE_WORD, NAME, NUMBER } from '../shell/columns'
import { Editions } from './Editions'
import { PreflightPanel } from './PreflightPanel'

const COLUMNS = [NAME, NUMBER, EMAIL, COUNTRY, LANE_WORD]

/** Send: what is prepared, what would be refused, and the files made so far. */
export const SendView = () => (
  <Bench piles={['lane', 'country', 'line', 'batch']} advice={<PreflightPanel />}>
    <BenchTitle title="Dispatch">files and audiences of this list</BenchTitle>
    <Editions />
    <h2 className="pt-4 pb-2 text-[15px]">Who is chosen</h2>
    <ContactGrid columns={COLUMNS} />
  </Bench>
)
