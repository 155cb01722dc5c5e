import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, NAME, NUMBER, VERDICT_WORD, WAS } from '../shell/columns'
import { VerdictAdvice } from './VerdictAdvice'

const COLUMNS = [NAME, COMPANY, WAS, NUMBER, VERDICT_WORD]

/** Tidy: every phone cell as it stood beside the number it became. */
export const TidyView = () => (
  <Bench piles={['batch', 'verdict', 'line', 'country']} advice={<VerdictAdvice />}>
    <BenchTitle title="As it stood, and what it became">every phone cell read by the numbering plan, free</BenchTitle>
    <ContactGrid columns={COLUMNS} />
  </Bench>
)
