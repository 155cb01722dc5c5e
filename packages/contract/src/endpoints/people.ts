import { z } from 'zod'
import { Me, NewOwner, NewPerson, PasswordChange, PersonChange, PersonLine, SessionLine, Setup } from '../people'
import { endpoint, nothing } from './endpoint'

const OfPerson = z.object({ personId: z.string().max(60) })

/** Who may enter. */
export const peopleEndpoints = {
  readSetup: endpoint('get', '/setup', 'Whether the owner is still to be made', { response: Setup, role: null }),
  makeOwner: endpoint('post', '/setup', 'Make the owner, once', { body: NewOwner, response: Me, role: null }),
  enterDemo: endpoint('post', '/demo-sign-in', 'Enter the demo as its made-up operator', { response: Me, role: null }),
  readMe: endpoint('get', '/me', 'Who is signed in', { response: Me }),
  changePassword: endpoint('put', '/me/password', 'Change one’s password; other sessions end', {
    body: PasswordChange,
    response: nothing,
  }),
  readPeople: endpoint('get', '/people', 'Everybody who may enter', { response: z.array(PersonLine), role: 'owner' }),
  addPerson: endpoint('post', '/people', 'Add an account', { body: NewPerson, response: Me, role: 'owner' }),
  changePerson: endpoint('patch', '/people/{personId}', 'Change the role of a person', {
    params: OfPerson,
    body: PersonChange,
    response: Me,
    role: 'owner',
  }),
  removePerson: endpoint('delete', '/people/{personId}', 'Remove a person and end their sessions', {
    params: OfPerson,
    response: nothing,
    role: 'owner',
  }),
  readSessions: endpoint('get', '/sessions', 'One’s own open sessions; for owners those of everybody', {
    response: z.array(SessionLine),
  }),
  endSession: endpoint('delete', '/sessions/{sessionId}', 'End a session', {
    params: z.object({ sessionId: z.string().max(60) }),
    response: nothing,
  }),
}
