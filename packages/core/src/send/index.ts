export {
  type AudienceShape,
  contradictionsIn,
  DESTINATION_FORMAT,
  type Destination,
  type DestinationColumn,
  type DestinationRules,
  headingsOf,
  SEND_FIELDS,
  type SendField,
  shapeOf,
  TAKES,
  type Takes,
} from './destination'
export { roundsOf, type Way, wayOf } from './difference'
export {
  cellsIn,
  DELIMITERS,
  FILE_COLUMNS,
  FILE_FORM,
  FILE_KINDS,
  type FileColumn,
  type FileKind,
  type FileLayout,
  type FilePerson,
  fileHead,
  filePart,
  fileRow,
  HEADINGS_SHEET,
  headingsIn,
  NUMBER_FORMS,
  type NumberForm,
  ONLY_SHEET,
  SHEETS,
  sheetName,
  USUAL_LAYOUT,
} from './fileLayout'
export { datedName, fileNameFor } from './fileName'
export {
  expectedMatch,
  type Forecast,
  forecastMatch,
  IDENTIFIER_KINDS,
  type IdentifierKind,
  type IdentifierMix,
  type MatchHistory,
  mixKey,
} from './forecast'
export { IDENTIFYING_FIELDS, identifiersAt, type KindsKnown, kindsTaken } from './identifiers'
export { countValues, type MemberColumns, type MemberValue, membersFrom } from './memberColumns'
export {
  AUDIENCE_STATES,
  type AudienceState,
  NETWORK_VALUES,
  type NetworkAccount,
  type NetworkCalls,
  type NetworkValue,
  networkTemplates,
  PART_CHANGES,
  type PartChange,
  PURPOSES,
  type Purpose,
  partValues,
  type Refusal,
  readAccounts,
  readAudienceState,
  readText,
  refusalOf,
  type ToldState,
  whyNotFor,
} from './networkCalls'
export { type NormalContext, normalForm } from './normalForms'
export { NORMAL_STEPS, whyNoStep } from './normalSteps'
export { type AudienceMember, columnsOf, createPreparer, type PreparedMember } from './prepareMember'
export {
  createMembersPreparer,
  type LeftOut,
  type Mend,
  type PreparedMembers,
  type PrepareMembers,
  type PrepareOptions,
} from './prepareMembers'
