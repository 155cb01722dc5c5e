import { useReadMeQuery } from '../api'
import { MachineKeys } from './MachineKeys'
import { Webhooks } from './Webhooks'

/** Other programs: the keys they call with, and what they are told. */
export function ProgramsView() {
  const { data: me } = useReadMeQuery({})
  if (!me) return null
  const isOwner = me.role === 'owner'
  return (
    <main className="mx-auto flex h-full max-w-5xl flex-col gap-8 overflow-y-auto px-6 py-6">
      <div>
        <h1>Other programs</h1>
        <p className="pt-1 text-soft">
          A form can have a number judged before anything is sent to it, add people by itself, and be told what became
          of them.{' '}
          <a href="/api/docs" className="text-slate underline underline-offset-2">
            Every call, with examples
          </a>
          {isOwner ? '' : ' Keys and webhooks are made by owners.'}
        </p>
      </div>
      <MachineKeys isOwner={isOwner} />
      <Webhooks isOwner={isOwner} />
    </main>
  )
}
