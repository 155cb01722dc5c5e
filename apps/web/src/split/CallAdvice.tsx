import { OUTCOMES } from '@upper-field/core/split'
import { useReadCallSheetQuery, useUndoCallMutation } from '../api'
import { Button, Key } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { count, percent } from '../words/format'
import { OUTCOME } from '../words/sentences'

/** Why the sheet is in this order, what came of today's calls, and the way to take the last one back. */
export function CallAdvice() {
  const { listId, text } = useListView()
  const mayChange = useMayChange()
  const { data: sheet } = useReadCallSheetQuery({ params: { listId }, query: { filter: text } })
  const [undo, undoing] = useUndoCallMutation()
  const lastCall = sheet?.lastCall ?? null
  const takeBack = () => {
    if (lastCall && !undoing.isLoading) void undo({ params: { callId: lastCall.id } })
  }
  useKeys({ z: takeBack })
  if (!sheet) return null
  const called = OUTCOMES.reduce((sum, outcome) => sum + sheet.today[outcome], 0)
  return (
    <div className="flex flex-col gap-3">
      <section>
        <h2>In this order, because</h2>
        <p className="text-soft">
          Those who may be called now, the surest lines first, then whoever’s day ends soonest. After no answer a
          contact rests for three hours.
        </p>
      </section>
      <dl>
        {[
          ['May be called now', sheet.now],
          ['Later', sheet.later],
          ['Called again another time', sheet.resting],
        ].map(([name, n]) => (
          <div key={name} className="flex justify-between border-t border-line py-1">
            <dt>{name}</dt>
            <dd className="num">{count(Number(n))}</dd>
          </div>
        ))}
      </dl>
      <section className="border-t border-line pt-3">
        <h3>An outcome is a fact</h3>
        <p className="text-soft">
          A wrong number is out of service here and in every list. Whoever asks not to be called is suppressed for calls
          at once. All of it can be taken back.
        </p>
      </section>
      <section aria-label="Today" className="border-t border-line pt-3">
        <h2>Today</h2>
        <dl>
          <div className="flex justify-between py-0.5">
            <dt>Called</dt>
            <dd className="num">{count(called)}</dd>
          </div>
          {OUTCOMES.map((outcome) => (
            <div key={outcome} className="flex justify-between py-0.5">
              <dt>{OUTCOME[outcome]}</dt>
              <dd>
                <span className="num">{count(sheet.today[outcome])}</span>
                {called > 0 ? (
                  <span className="num inline-block w-12 text-right text-[13px] text-soft">
                    {percent(sheet.today[outcome] / called)}
                  </span>
                ) : null}
              </dd>
            </div>
          ))}
        </dl>
      </section>
      <Refused by={[undoing]} />
      {lastCall && mayChange ? (
        <div>
          <Button className="flex w-full items-center justify-between" disabled={undoing.isLoading} onClick={takeBack}>
            Take back the last outcome <Key>z</Key>
          </Button>
          <p className="pt-1 text-[13px] text-soft">
            {lastCall.fullName || 'No name'}: {OUTCOME[lastCall.outcome].toLowerCase()}
          </p>
        </div>
      ) : null}
    </div>
  )
}
