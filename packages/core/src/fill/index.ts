export { type Expected, expectOrder, type Range } from './bootstrap'
export { type CompanyFacts, companyFactsIn } from './companyFacts'
export {
  type AddressCandidate,
  FOUND_AS,
  type FoundAs,
  type Judgement,
  judgeAddress,
  judgeNumber,
  KEPT_AS,
  type KeptAs,
  type NumberCandidate,
  SET_ASIDE_REASONS,
  type SetAsideReason,
} from './judge'
export {
  type FillBranch,
  isForCountry,
  NO_CONDITION,
  orderFor,
  type StepCondition,
  satisfies,
  serves,
  stillWanted,
  WANTS,
  type Want,
} from './plan'
export { type AgreedPrices, asTold, atPrice, dearerThanAgreed, type NewPrices, pricesOf } from './prices'
export {
  type Askable,
  costOfAnswer,
  inputFor,
  type Micros,
  mostCost,
  PERSON_INPUTS,
  type PersonInput,
  type ProviderTerms,
} from './providers'
export {
  type Asked,
  MOST_REPLAYED,
  NOT_ASKED,
  type OrderOutcome,
  type Replay,
  type ReplayContact,
  type ReplayInput,
  type ReplayProvider,
  replayAsked,
  replayFill,
} from './replay'
export {
  ASKING,
  type Asking,
  ATTEMPT_STATES,
  type AttemptFacts,
  type AttemptState,
  type NextAct,
  nextAct,
  SEARCH_OUTCOMES,
  type Search,
  type SearchOutcome,
} from './waterfall'
