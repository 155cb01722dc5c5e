import type { Me, PersonLine, Role, SessionLine } from '@upper-field/contract'

export interface NewAccount {
  readonly name: string
  readonly email: string
  readonly password: string
  readonly role: Role
}

export interface SignedIn {
  readonly me: Me
  readonly sessionId: string
}

/** Who may enter, and who has. */
export interface People {
  /** The sign-in library's own calls: signing in and out. */
  handler(request: Request): Promise<Response>
  whoIs(headers: Headers): Promise<SignedIn | null>
  hasAnyone(): Promise<boolean>
  /** Throws a problem where the password is known to everybody, or the e-mail has an account. */
  add(account: NewAccount): Promise<Me>
  /** Makes the owner where there is nobody yet; null where somebody was quicker. */
  addFirst(account: Omit<NewAccount, 'role'>): Promise<Me | null>
  findByEmail(email: string): Promise<Me | null>
  /** @param headers of the call: the session says from where and with what it was begun */
  signIn(credentials: { email: string; password: string }, headers: Headers): Promise<Response>
  list(): Promise<readonly PersonLine[]>
  /** Throws a problem for the last owner, who would leave nobody to let others in. */
  changeRole(personId: string, role: Role): Promise<Me>
  /** Removes an account and ends its sessions. Throws a problem for the last owner. */
  remove(personId: string): Promise<void>
  /** Throws a problem where the old password is not this one, or the new one is known to everybody. */
  changePassword(headers: Headers, change: { old: string; new: string }): Promise<void>
  /** Sessions that are open: of one person, or of everybody. */
  sessions(personId: string | null): Promise<readonly Omit<SessionLine, 'isThis'>[]>
  /** Ends a session, and the event stream that was opened in it. False where there is none of these. */
  endSession(sessionId: string, ofPerson: string | null): Promise<boolean>
}
