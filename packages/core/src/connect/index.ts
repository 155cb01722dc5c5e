export { whyNoPath } from '../answerPaths'
export {
  type Call,
  type CallLimit,
  type KeyPlace,
  LONGEST_TEMPLATE,
  METHODS,
  type OutgoingRequest,
  type TemplatePlace,
} from '../callTemplates'
export {
  type AnswerItem,
  type AnswerProblem,
  MOST_ITEMS,
  type ReadAnswer,
  readItems,
  readPrice,
  readReceipt,
  readState,
  readStatement,
  type StatementDay,
} from './answer'
export {
  ANSWER_FIELDS,
  type AnswerField,
  type Answers,
  CHARGED_PER,
  type Connector,
  type Directory,
  FORMAT,
  GIVES,
  type Gives,
  INPUT_SETS,
  type InputSet,
  type LookUp,
  type Statement,
  type Way,
} from './connector'
export {
  type Counted,
  mostForBusinesses,
  type Named,
  type PageEnd,
  type PageTerms,
  RECORD_STATES,
  type RecordState,
  readCount,
  readNamed,
  readPageEnd,
  sizeWithin,
} from './directory'
export { isFreeAnswer, priceOf } from './price'
export {
  buildRequest,
  keyedValue,
  REQUEST_NAMES,
  type RequestValues,
  whyNoTemplate,
} from './request'
