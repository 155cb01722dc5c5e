import { Me, NewOwner, NewPerson, Setup } from '../people'
import { endpoint } from './endpoint'

/** Who may enter. */
export const peopleEndpoints = {
  readSetup: endpoint('get', '/setup', 'Whether the owner is still to be made', { response: Setup, role: null }),
  makeOwner: endpoint('post', '/setup', 'Make the owner, once', { body: NewOwner, response: Me, role: null }),
  enterDemo: endpoint('post', '/demo-sign-in', 'Enter the demo as its made-up operator', { response: Me, role: null }),
  readMe: endpoint('get', '/me', 'Who is signed in', { response: Me }),
  addPerson: endpoint('post', '/people', 'Add an account', { body: NewPerson, response: Me, role: 'owner' }),
}
