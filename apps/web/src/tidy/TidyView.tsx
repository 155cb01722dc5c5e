import type { TidyState } from '@upper-field/contract'
import { CHANGE_CODES, type ChangeCode, CODES_OF } from '@upper-field/core/tidy'
import { useReadTidyQuery, useTakeActBackMutation } from '../api'
import { TextButton } from '../kit/Button'
import { Empty } from '../kit/Notice'
import { Tabs } from '../kit/Tabs'
import { useMayChange } from '../people/useRole'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { BenchTitle, StoryOr } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COMPANY, NAME, NUMBER, VERDICT_WORD, WAS } from '../shell/columns'
import { Sieve } from '../shell/Sieve'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { BulkEdit } from './BulkEdit'
import { ChangesTable } from './ChangesTable'
import { DraftBar } from './DraftBar'
import { HandQueue } from './HandQueue'
import { RoutinePanel } from './RoutinePanel'
import { StepEditor } from './StepEditor'
import { TidyAdvice } from './TidyAdvice'
import { type PickedContacts, usePicked } from './usePicked'
import { type RoutineDraft, useRoutineDraft } from './useRoutineDraft'
import { useTidyView } from './useTidyView'

/** Tidy: the routine, what each repair has changed, and the cells that need a hand. */
export function TidyView() {
  const list = useListView()
  const view = useTidyView()
  const asked = useReadTidyQuery({ params: { listId: list.listId } })
  const state = lastRead(asked)
  const draft = useRoutineDraft(state, view.openStep)
  const picking = usePicked()
  useKeys({ v: () => view.show(view.showsContacts ? 'repairs' : 'contacts') })
  if (!state) return <Unanswered of={[asked]} what="the routine" />
  const shown = view.code ?? firstCode(state, draft, view.stepId)
  return (
    <div className="flex h-full min-h-0">
      {view.showsContacts ? (
        <Sieve piles={['batch', 'verdict', 'line', 'country']} />
      ) : (
        <RoutinePanel state={state} draft={draft} shown={shown} />
      )}
      <main className="flex min-h-0 min-w-0 flex-1 flex-col pt-3">
        <Tabs
          label="Parts of Tidy"
          open={view.showsContacts ? 'contacts' : 'repairs'}
          tabs={[
            ['repairs', 'Repairs'],
            ['contacts', 'Contacts'],
          ]}
          onOpen={view.show}
        />
        {view.showsContacts ? <Contacts picking={picking} /> : <Repairs state={state} draft={draft} shown={shown} />}
      </main>
      <StoryOr>
        <Aside state={state} draft={draft} picking={picking} />
      </StoryOr>
    </div>
  )
}

function Aside({ state, draft, picking }: { state: TidyState; draft: RoutineDraft; picking: PickedContacts }) {
  const view = useTidyView()
  const step = draft.routine.steps.find(({ id }) => id === view.stepId)
  if (view.showsContacts) return <BulkEdit state={state} picking={picking} />
  if (step)
    return (
      <>
        <StepEditor
          key={step.id}
          step={step}
          columns={state.columns}
          onChange={draft.change}
          onRemove={() => {
            draft.remove(step.id)
            view.openStep(null)
          }}
        />
        <TextButton className="mt-3" onClick={() => view.openStep(null)}>
          Close this step
        </TextButton>
      </>
    )
  return <TidyAdvice state={state} draft={draft} />
}

const COLUMNS = [NAME, COMPANY, WAS, NUMBER, VERDICT_WORD]

const Contacts = ({ picking }: { picking: PickedContacts }) => (
  <div className="flex min-h-0 flex-1 flex-col px-5 pb-3">
    <BenchTitle title="As it stood, and what it became">by the cell the best number came from</BenchTitle>
    <ContactGrid columns={COLUMNS} picking={picking} />
  </div>
)

function Repairs({ state, draft, shown }: { state: TidyState; draft: RoutineDraft; shown: ChangeCode | null }) {
  const list = useListView()
  const mayChange = useMayChange()
  const [takeBack, taking] = useTakeActBackMutation()
  const last = state.acts.find(({ undoneAt }) => undoneAt === null)
  useKeys({
    z: () => {
      if (last && list.contactId === null && mayChange && !taking.isLoading)
        void takeBack({ params: { actId: last.id } })
    },
    a: () => document.querySelector<HTMLSelectElement>('[aria-label="Routine"] select')?.focus(),
    e: () => document.querySelector<HTMLInputElement>('[aria-label="Cells that need a hand"] input')?.focus(),
  })
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1 flex-col px-5 pb-2">
        <Refused by={[taking]} />
        <DraftBar listId={list.listId} state={state} draft={draft} contacts={state.contacts} />
        {draft.isChanged ? null : shown ? (
          <ChangesTable key={shown} code={shown} state={state} />
        ) : (
          <Empty title="This step has changed nothing">
            <p className="text-soft">Choose another step, or change what this one does.</p>
          </Empty>
        )}
      </div>
      <HandQueue />
    </div>
  )
}

/** The repair to begin with: the most doubtful of the open step, else of the first that changed anything. */
function firstCode(state: TidyState, draft: RoutineDraft, stepId: string | null): ChangeCode | null {
  const has = (code: ChangeCode) => (state.counts[code] ?? 0) > 0
  const open = draft.routine.steps.find(({ id }) => id === stepId)
  if (open) return CODES_OF[open.kind].find(has) ?? null
  const order = draft.routine.steps.flatMap(({ kind }) => CODES_OF[kind])
  return order.find(has) ?? CHANGE_CODES.find(has) ?? null
}
