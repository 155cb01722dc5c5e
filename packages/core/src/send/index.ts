export { BRASSBELL, DESTINATIONS, type Destination, findDestination, headingsOf } from './destinations'
export { fileNameFor } from './fileName'
export { PEOPLE_HEADINGS, type PersonLine, personCells } from './peopleFile'
export {
  type AudienceMember,
  type LeftOutReason,
  type Mend,
  type PreparedMember,
  type PrepareOptions,
  prepareMember,
} from './prepareMember'
