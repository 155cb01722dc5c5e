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
  MOST_REPLAYED,
  type OrderOutcome,
  type Replay,
  type ReplayContact,
  type ReplayInput,
  type ReplayProvider,
  replayFill,
} from './replay'
export {
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
