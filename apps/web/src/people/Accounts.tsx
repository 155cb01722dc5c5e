import { type Me, type PersonLine, ROLES, type Role } from '@upper-field/contract'
import { useState } from 'react'
import { useChangePersonMutation, useReadPeopleQuery, useRemovePersonMutation } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField } from '../kit/Field'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { date, plural, time } from '../words/format'
import { AddPerson } from './AddPerson'

/** What each role may do, in a few words. */
export const ROLE: Record<Role, string> = {
  owner: 'owner: people, keys, everything',
  operator: 'operator: works on lists',
  viewer: 'viewer: looks, downloads nothing',
}

/** Everybody who may enter, with their role. The last owner can be neither removed nor made less. */
export function Accounts({ me }: { me: Me }) {
  const asked = useReadPeopleQuery({})
  const people = lastRead(asked)
  const [change, changing] = useChangePersonMutation()
  const [isAdding, setAdding] = useState(false)
  const [leaving, setLeaving] = useState<PersonLine | null>(null)
  if (!people) return <Unanswered of={[asked]} what="the people" />
  return (
    <section aria-label="Accounts">
      <div className="flex items-center justify-between pb-2">
        <p className="text-soft">{plural(people.length, 'person', 'people')} may enter.</p>
        <Button look="main" onClick={() => setAdding(true)}>
          Add a person
        </Button>
      </div>
      <Refused by={[changing]} />
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">Name</th>
            <th>E-mail</th>
            <th>Role</th>
            <th>Added</th>
            <th>Last seen</th>
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {people.map((person) => (
            <tr key={person.id} className="border-b border-line">
              <td className="py-1.5 pr-3 font-semibold">{person.name}</td>
              <td className="pr-3">{person.email}</td>
              <td className="py-1 pr-3">
                <RoleChoice
                  person={person}
                  isMe={person.id === me.id}
                  isBusy={changing.isLoading}
                  onChange={(role) => void change({ params: { personId: person.id }, body: { role } })}
                />
              </td>
              <td className="whitespace-nowrap pr-3">{date(person.addedAt)}</td>
              <td className="whitespace-nowrap pr-3 text-[13px] text-soft">
                {person.lastSeenAt ? time(person.lastSeenAt) : 'not signed in'}
              </td>
              <td className="text-right">
                {person.id === me.id ? (
                  <span className="text-soft">you</span>
                ) : (
                  <TextButton aria-label={`Remove ${person.name}`} onClick={() => setLeaving(person)}>
                    Remove
                  </TextButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {isAdding ? <AddPerson onClose={() => setAdding(false)} /> : null}
      {leaving ? <RemovePerson person={leaving} onClose={() => setLeaving(null)} /> : null}
    </section>
  )
}

interface RoleChoiceProps {
  readonly person: PersonLine
  readonly isMe: boolean
  readonly isBusy: boolean
  readonly onChange: (role: Role) => void
}

/** The role of a person. Whoever gives up their own cannot take it back: they are asked first. */
function RoleChoice({ person, isMe, isBusy, onChange }: RoleChoiceProps) {
  const [wanted, setWanted] = useState<Role>(person.role)
  return (
    <AskFirst
      title="Give up being an owner?"
      says={`You are ${ROLE[wanted].split(':')[0]} from then on, and only another owner can make you one again.`}
      does="Give it up"
      onDo={() => onChange(wanted)}
    >
      {(ask) => (
        <SelectField
          label={`Role of ${person.name}`}
          hidesLabel
          value={person.role}
          disabled={isBusy}
          onChange={({ target }) => {
            const role = target.value as Role
            setWanted(role)
            if (isMe) ask()
            else onChange(role)
          }}
        >
          {ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE[role]}
            </option>
          ))}
        </SelectField>
      )}
    </AskFirst>
  )
}

function RemovePerson({ person, onClose }: { person: PersonLine; onClose: () => void }) {
  const [remove, removing] = useRemovePersonMutation()
  const submit = async () => {
    const result = await remove({ params: { personId: person.id } })
    if (!result.error) onClose()
  }
  return (
    <Dialog title={`Remove ${person.name}?`} isOpen onClose={onClose}>
      <div className="flex flex-col gap-4">
        <p>
          They can enter no more, and {plural(person.sessions, 'open session')} of theirs{' '}
          {person.sessions === 1 ? 'ends' : 'end'} at once. What they did stays in the stories, with their name.
        </p>
        <Refused by={[removing]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="danger" disabled={removing.isLoading} onClick={() => void submit()}>
            Remove {person.name}
          </Button>
        </div>
      </div>
    </Dialog>
  )
}
