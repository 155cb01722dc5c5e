export { type Expected, expectOrder, type Range } from './bootstrap'
export {
  type Askable,
  costOfAnswer,
  inputFor,
  type Micros,
  mostCost,
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
  type CandidateInput,
  type CandidateJudgement,
  judgeCandidate,
  type NextAct,
  nextAct,
  SET_ASIDE_REASONS,
  type SetAsideReason,
} from './waterfall'
