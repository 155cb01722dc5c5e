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
export {
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
  NUMBER_FORMS,
  type NumberForm,
  USUAL_LAYOUT,
} from './fileLayout'
export { fileNameFor } from './fileName'
export { type NormalContext, normalForm } from './normalForms'
export { NORMAL_STEPS, whyNoStep } from './normalSteps'
export {
  type AudienceMember,
  type LeftOut,
  type Mend,
  type PreparedMember,
  type PrepareOptions,
  prepareMember,
} from './prepareMember'
