import type { TidyState } from '@upper-field/contract'
import { useDropRoutineMutation, useReadRoutinesQuery, useTakeActBackMutation } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { ButtonLink, TextButton } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { plural, time } from '../words/format'
import { columnTitle, REPAIR_NAME } from '../words/tidying'
import type { RoutineDraft } from './useRoutineDraft'

/** What has been changed by people, routines saved by name, and the next stage. */
export function TidyAdvice({ state, draft }: { state: TidyState; draft: RoutineDraft }) {
  const { listId } = useListView()
  return (
    <div className="flex flex-col gap-4">
      <div>
        <h2>Where the tidying stands</h2>
        <p className="text-soft">
          {state.isProposed
            ? 'This routine was proposed from what the columns hold, and every new batch is tidied by it.'
            : 'Every new batch of this list is tidied by this routine.'}
        </p>
      </div>
      <SavedRoutines draft={draft} />
      <Acts state={state} />
      <ButtonLink look="main" className="w-full" to={`/lists/${listId}/pair`}>
        Next: who stands here twice
      </ButtonLink>
    </div>
  )
}

function SavedRoutines({ draft }: { draft: RoutineDraft }) {
  const { data: saved = [] } = useReadRoutinesQuery({})
  const [drop, dropping] = useDropRoutineMutation()
  if (saved.length === 0) return null
  return (
    <section>
      <h3 className="pb-1">Saved routines</h3>
      <Refused by={[dropping]} />
      <ul>
        {saved.map(({ id, name, routine }) => (
          <li key={id} className="flex items-baseline justify-between gap-2 border-t border-line py-1">
            <span className="min-w-0 truncate">{name}</span>
            <span className="flex shrink-0 gap-3">
              <TextButton onClick={() => draft.use(routine)}>Try it here</TextButton>
              <AskFirst
                title={`Forget the routine “${name}”?`}
                says="Lists that are tidied by it stay as they are. No other list can take it from here any more."
                does="Forget it"
                onDo={() => void drop({ params: { routineId: id } })}
              >
                {(ask) => (
                  <TextButton aria-label={`Forget ${name}`} onClick={ask}>
                    Forget
                  </TextButton>
                )}
              </AskFirst>
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

const ACT = {
  edit: 'Edited',
  'bulk-edit': 'Set for many',
  'leave-out': 'Left out',
  routine: 'Routine',
  reading: 'Read anew',
} as const

function Acts({ state }: { state: TidyState }) {
  const [takeBack, taking] = useTakeActBackMutation()
  const acts = state.acts.slice(0, 8)
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
              ) : (
                <TextButton disabled={taking.isLoading} onClick={() => void takeBack({ params: { actId: act.id } })}>
                  Take back
                </TextButton>
              )}
            </div>
          </li>
        ))}
      </ul>
    </section>
  )
}

function detailOf({ kind, detail }: TidyState['acts'][number]): string {
  if (kind === 'leave-out') return REPAIR_NAME[detail as keyof typeof REPAIR_NAME]?.title ?? detail
  const [column = '', ...rest] = detail.split(': ')
  return rest.length > 0 ? `${columnTitle(column)}: ${rest.join(': ') || 'blank'}` : detail
}
