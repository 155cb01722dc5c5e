export { readCountry } from '../table'
export { EMAIL_KINDS, type EmailKind, type ReadEmail, readEmails } from './emails'
export { joinName, type PersonName, splitName } from './names'
export {
  type CellReading,
  type ContactValues,
  type ProjectedContact,
  type ProjectOptions,
  projectRow,
} from './projectRow'
export { readDomain, readProfile } from './web'
