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
  whyNoPath,
} from './answer'
export {
  ANSWER_FIELDS,
  type AnswerField,
  type Answers,
  type Call,
  CHARGED_PER,
  type Connector,
  FORMAT,
  GIVES,
  type Gives,
  INPUT_SETS,
  type InputSet,
  type Statement,
  type Way,
} from './connector'
export { isFreeAnswer, priceOf } from './price'
export {
  buildRequest,
  keyedValue,
  LONGEST_TEMPLATE,
  type OutgoingRequest,
  REQUEST_NAMES,
  type RequestValues,
  whyNoTemplate,
} from './request'
