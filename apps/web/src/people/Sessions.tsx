import { useEndSessionMutation, useReadSessionsQuery } from '../api'
import { TextButton } from '../kit/Button'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { time } from '../words/format'
import { browserName } from './browserName'

/** Browsers that are signed in; each can be signed out from here, and stops at once. */
export function Sessions({ isOwner }: { isOwner: boolean }) {
  const asked = useReadSessionsQuery({})
  const sessions = lastRead(asked)
  const [end, ending] = useEndSessionMutation()
  if (!sessions) return <Unanswered of={[asked]} what="the sessions" />
  return (
    <section aria-label="Open sessions">
      <h2 className="pb-2 text-[15px]">{isOwner ? 'Open sessions' : 'Where you are signed in'}</h2>
      <Refused by={[ending]} />
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">Who</th>
            <th>Browser</th>
            <th>From</th>
            <th>Since</th>
            <th>Last seen</th>
            <th>
              <span className="sr-only">Sign out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sessions.map((session) => (
            <tr key={session.id} className="border-b border-line">
              <td className="py-1.5 font-semibold">{session.person}</td>
              <td>{browserName(session.agent)}</td>
              <td className="num">{session.address || <span className="text-soft">not known</span>}</td>
              <td className="whitespace-nowrap text-[13px]">{time(session.startedAt)}</td>
              <td className="whitespace-nowrap text-[13px]">{time(session.lastSeenAt)}</td>
              <td className="text-right">
                {session.isThis ? (
                  <span className="text-soft">this one</span>
                ) : (
                  <TextButton
                    disabled={ending.isLoading}
                    aria-label={`Sign out ${session.person}, ${browserName(session.agent)}, since ${time(session.startedAt)}`}
                    onClick={() => void end({ params: { sessionId: session.id } })}
                  >
                    Sign out
                  </TextButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
