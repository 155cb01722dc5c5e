import type { Forgetting } from '@upper-field/contract'
import { useState } from 'react'
import { useForgetPersonMutation, useReadForgettingQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { Answer, Refused } from '../shell/Answer'
import { count, phone, plural } from '../words/format'

/** The way to erase a person who asks for it, from every list. It cannot be taken back, so it is told first. */
export function ForgetPerson({ contactId, name }: { contactId: number; name: string }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <p className="pt-1 text-[13px]">
      <TextButton onClick={() => setOpen(true)}>They asked to be forgotten …</TextButton>
      {isOpen ? <Confirm contactId={contactId} name={name} onClose={() => setOpen(false)} /> : null}
    </p>
  )
}

function Confirm({ contactId, name, onClose }: { contactId: number; name: string; onClose: () => void }) {
  const asked = useReadForgettingQuery({ params: { contactId } }, { refetchOnMountOrArgChange: true })
  const { data: what } = asked
  const [forget, forgetting] = useForgetPersonMutation()
  const submit = async () => {
    const { data } = await forget({ params: { contactId } })
    if (data) onClose()
  }
  return (
    <Dialog title={`Forget ${name || 'this person'}`} isOpen onClose={onClose}>
      <Answer of={asked} what="where the person is">
        {(told) => <Told what={told} />}
      </Answer>
      <Refused by={[forgetting]} />
      <div className="flex justify-end gap-2 pt-4">
        <Button onClick={onClose}>Keep them</Button>
        <Button look="danger" disabled={!what || forgetting.isLoading} onClick={() => void submit()}>
          Erase for good
        </Button>
      </div>
    </Dialog>
  )
}

function Told({ what }: { what: Forgetting }) {
  return (
    <ul className="flex list-disc flex-col gap-1.5 pl-5">
      <li>
        {plural(what.contacts, 'row')} in {what.lists.length === 1 ? what.lists[0] : plural(what.lists.length, 'list')}{' '}
        will be blank: name, numbers, addresses, edits and everything providers said. Only the place of each row is
        left, so that every count stays right.
      </li>
      <li>
        {what.keys === 0
          ? 'Nothing they could be known by is theirs alone: a later batch may bring them back.'
          : `${plural(what.keys, 'hash', 'hashes')} of their numbers and addresses ${what.keys === 1 ? 'is' : 'are'} kept, so that no later batch brings them back unmarked.`}
      </li>
      {what.heldByOthers.length > 0 ? (
        <li>
          {what.heldByOthers.map(phone).join(', ')} {what.heldByOthers.length === 1 ? 'is a line' : 'are lines'} of
          other people too, and can still be called for them.
        </li>
      ) : null}
      {what.files > 0 ? (
        <li>
          {count(what.files)} {what.files === 1 ? 'file that holds' : 'files that hold'} them cannot be downloaded any
          more. Copies that were downloaded are yours to find.
        </li>
      ) : null}
      <li className="font-semibold">This cannot be taken back.</li>
    </ul>
  )
}
