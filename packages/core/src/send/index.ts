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
export { fileNameFor } from './fileName'
export { type NormalContext, normalForm } from './normalForms'
export { NORMAL_STEPS, whyNoStep } from './normalSteps'
export { PEOPLE_HEADINGS, type PersonLine, personCells } from './peopleFile'
export {
  type AudienceMember,
  type LeftOut,
  type Mend,
  type PreparedMember,
  type PrepareOptions,
  prepareMember,
} from './prepareMember'
