import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, LINE_TYPE, NAME, NUMBER, STATUS } from '../shell/columns'
import { CheckPrice } from './CheckPrice'
import { LineField } from './LineField'

const COLUMNS = [NAME, COMPANY, NUMBER, LINE_TYPE, STATUS]

/** Check: what kind of line each number is, whether it rings, and what asking costs. */
export const CheckView = () => (
  <Bench piles={['line', 'status', 'country', 'batch']} advice={<CheckPrice />}>
    <BenchTitle title="What kind of line, and does it ring?">the best number of each contact</BenchTitle>
    <LineField />
    <ContactGrid columns={COLUMNS} />
  </Bench>
)
