import { useReadMeQuery } from '../api'
import { Accounts } from './Accounts'
import { ChangePassword } from './ChangePassword'
import { Sessions } from './Sessions'

/** Who may enter and from where: all of it for owners, one's own for everybody. */
export function PeopleView() {
  const { data: me } = useReadMeQuery({})
  if (!me) return null
  const isOwner = me.role === 'owner'
  return (
    <main className="mx-auto flex h-full max-w-5xl flex-col gap-8 overflow-y-auto px-6 py-6">
      <h1>{isOwner ? 'People' : 'Your account'}</h1>
      {isOwner ? <Accounts me={me} /> : null}
      <Sessions isOwner={isOwner} />
      <ChangePassword />
    </main>
  )
}
