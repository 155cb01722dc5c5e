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
  REQUEST_NAMES,
  type RequestValues,
  whyNoTemplate,
} from './request'
