import type { TidyState } from '@upper-field/contract'
import { useState } from 'react'
import { useTakeActBackMutation } from '../api'
import { TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { count, plural, time } from '../words/format'
import { columnTitle, REPAIR_NAME } from '../words/tidying'

const ACT = {
  edit: 'Edited',
  'bulk-edit': 'Set for many',
  'leave-out': 'Left out',
  routine: 'Routine',
  reading: 'Read anew',
} as const

/** Acts that are shown until more are asked for. */
const FEW = 8

/** What people have changed in a list, latest first; each can be taken back. */
export function ActsByPeople({ state }: { state: TidyState }) {
  const [takeBack, taking] = useTakeActBackMutation()
  const [showsAll, setShowsAll] = useState(false)
  const mayChange = useMayChange()
  const acts = showsAll ? state.acts : state.acts.slice(0, FEW)
  return (
    <section>
      <h3 className="pb-1">Changed by people</h3>
      {acts.length === 0 ? <p className="text-soft">Nothing yet. Whatever is, can be taken back here.</p> : null}
      <Refused by={[taking]} />
      <ul>
        {acts.map((act) => (
          <li key={act.id} className="border-t border-line py-1.5">
            <div className={`break-words ${act.undoneAt ? 'text-soft line-through' : ''}`}>
              <span className="font-semibold">{ACT[act.kind]}</span> · {detailOf(act)}
              {act.contacts !== null && act.contacts > 1 ? ` · ${plural(act.contacts, 'contact')}` : ''}
            </div>
            <div className="flex justify-between text-[13px] text-soft">
              <span>
                {act.madeBy}, {time(act.madeAt)}
              </span>
              {act.undoneAt ? (
                'taken back'
              ) : mayChange ? (
                <TextButton disabled={taking.isLoading} onClick={() => void takeBack({ params: { actId: act.id } })}>
                  Take back
                </TextButton>
              ) : null}
            </div>
          </li>
        ))}
      </ul>
      {state.acts.length > FEW ? (
        <TextButton aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
          {showsAll ? 'Only the latest' : `${count(state.acts.length - FEW)} older`}
        </TextButton>
      ) : null}
      {showsAll && state.hasOlderActs ? (
        <p className="text-[13px] text-soft">Those before are taken back from the story of a contact.</p>
      ) : null}
    </section>
  )
}

function detailOf({ kind, detail }: TidyState['acts'][number]): string {
  if (kind === 'leave-out') return REPAIR_NAME[detail as keyof typeof REPAIR_NAME]?.title ?? detail
  const [column = '', ...rest] = detail.split(': ')
  return rest.length > 0 ? `${columnTitle(column)}: ${rest.join(': ') || 'blank'}` : detail
}
