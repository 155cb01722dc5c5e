import type { TidyState } from '@upper-field/contract'
import { useDropRoutineMutation, useReadRoutinesQuery } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { ButtonLink, TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { JobUnderWay } from '../shell/JobUnderWay'
import { useListView } from '../shell/useListView'
import { ActsByPeople } from './ActsByPeople'
import type { RoutineDraft } from './useRoutineDraft'

/** What has been changed by people, routines saved by name, and the next stage. */
export function TidyAdvice({ state, draft }: { state: TidyState; draft: RoutineDraft }) {
  const { listId } = useListView()
  return (
    <div className="flex flex-col gap-4">
      <JobUnderWay of={['tidy']} />
      <div>
        <h2>Where the tidying stands</h2>
        <p className="text-soft">
          {state.isProposed
            ? 'This routine was proposed from what the columns hold, and every new batch is tidied by it.'
            : 'Every new batch of this list is tidied by this routine.'}
        </p>
      </div>
      <SavedRoutines draft={draft} />
      <ActsByPeople state={state} />
      <ButtonLink look="main" className="w-full" to={`/lists/${listId}/pair`}>
        Next: who stands here twice
      </ButtonLink>
    </div>
  )
}

function SavedRoutines({ draft }: { draft: RoutineDraft }) {
  const { data: saved = [] } = useReadRoutinesQuery({})
  const [drop, dropping] = useDropRoutineMutation()
  const mayChange = useMayChange()
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
              {mayChange ? (
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
              ) : null}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
