import type { ChangedValue, TidyState } from '@upper-field/contract'
import type { ChangeCode } from '@upper-field/core/tidy'
import {
  useLeaveOutMutation,
  useLeaveOutWidelyMutation,
  useReadBatchesQuery,
  useReadChangesInfiniteQuery,
  useTakeActBackMutation,
} from '../api'
import { Button, TextButton } from '../kit/Button'
import { useIntoView } from '../kit/useIntoView'
import { useMayChange } from '../people/useRole'
import { ReadState, Refused } from '../shell/Answer'
import { useJobUnderWay } from '../shell/JobUnderWay'
import { useKeys } from '../shell/useKeys'
import { useListView } from '../shell/useListView'
import { useNeighbours } from '../shell/useNeighbours'
import { count, phone } from '../words/format'
import { columnTitle, REPAIR_NAME } from '../words/tidying'
import { SuppressRefusals } from './SuppressRefusals'

const AS_IS: ReadonlySet<ChangeCode> = new Set(['number-form', 'edited', 'replaced', 'derived'])

/** One repair: every value it changed, was beside is, and the ways to leave it out. */
export function ChangesTable({ code, state }: { code: ChangeCode; state: TidyState }) {
  const view = useListView()
  const asked = useReadChangesInfiniteQuery({ listId: view.listId, code })
  const { data, hasNextPage, fetchNextPage, isFetchingNextPage } = asked
  const [leaveOut, leaving] = useLeaveOutMutation()
  const values = data?.pages.flatMap((page) => page.values) ?? []
  const chosen = values.find(({ contactId }) => contactId === view.contactId)
  const chosenLine = useIntoView<HTMLTableRowElement>(chosen?.contactId ?? null)
  const go = useNeighbours(values, ({ contactId }) => contactId)
  const mayChange = useMayChange()
  const mayLeave = mayChange && !AS_IS.has(code)
  const leaveOne = (value: ChangedValue | undefined) => {
    if (value && mayLeave)
      void leaveOut({ params: { listId: view.listId }, body: { code, contactId: value.contactId } })
  }
  useKeys({ j: go(1), k: go(-1), Escape: () => view.choose(null), o: () => leaveOne(chosen) })
  const name = REPAIR_NAME[code]
  const n = state.counts[code] ?? 0
  return (
    <section aria-label={name.title} className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-baseline gap-x-3 pb-2">
        <h1>{name.title}</h1>
        <p className="text-soft">
          {count(n)} {n === 1 ? 'contact' : 'contacts'} · {name.says}
        </p>
      </div>
      <ReadState of={asked} what="the changed values" />
      <Refused by={[leaving]} />
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard */}
      <div className="min-h-0 flex-1 overflow-y-auto" tabIndex={0}>
        <table className="w-full table-fixed">
          <thead className="sticky top-0 bg-paper">
            <tr className="text-left text-[13px] text-soft">
              <th className="w-[24%] py-1 pl-2 font-semibold">Who</th>
              <th className="w-[23%] py-1 font-semibold">Was</th>
              <th className="py-1 font-semibold">Is</th>
              <th className="w-[84px] py-1 font-semibold">Column</th>
              <th className="w-[60px] py-1 font-semibold">Country</th>
              <th className="w-[74px] py-1 pr-2 text-right font-semibold">Leave out</th>
            </tr>
          </thead>
          <tbody>
            {values.map((value) => (
              <tr
                key={`${value.contactId}${value.column}`}
                ref={value === chosen ? chosenLine : null}
                aria-selected={value.contactId === view.contactId}
                onClick={() => view.choose(value.contactId)}
                className={`cursor-pointer scroll-mt-8 border-t border-line ${value.contactId === view.contactId ? 'bg-lichen' : 'hover:bg-hill'}`}
              >
                <td className="truncate py-1 pl-2 pr-3">
                  <bdi>{value.who || 'No name'}</bdi>
                </td>
                <td title={value.was} className={`truncate py-1 pr-3 text-soft ${lettering(value.column)}`}>
                  <bdi>{value.was || 'blank'}</bdi>
                </td>
                <td title={value.is} className={`truncate py-1 pr-3 ${lettering(value.column)}`}>
                  <Is text={value.is} />
                </td>
                <td className="truncate py-1 pr-2 text-[13px] text-soft">{columnTitle(value.column)}</td>
                <td className="py-1">{value.country || '—'}</td>
                <td className="py-1 pr-2 text-right">
                  {mayLeave ? (
                    <TextButton
                      disabled={leaving.isLoading}
                      aria-label={`Leave it out for ${value.who || 'this contact'}`}
                      onClick={(event) => {
                        event.stopPropagation()
                        leaveOne(value)
                      }}
                    >
                      this one
                    </TextButton>
                  ) : (
                    <span className="text-soft">—</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {data && values.length === 0 ? (
          <p className="px-2 py-4 text-soft">This repair has changed nothing in the list as it is now.</p>
        ) : null}
        {hasNextPage ? (
          <Button look="quiet" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Show more
          </Button>
        ) : null}
      </div>
      {code === 'refusal' && mayChange ? <SuppressRefusals contacts={n} /> : null}
      {mayLeave ? <LeaveWidely code={code} n={n} state={state} /> : null}
    </section>
  )
}

/** Numbers and codes in letters of one width, so that digits stand under each other. */
const lettering = (column: string): string => (/^(?:number|postal-code)/.test(column) ? 'num text-[13px]' : '')

function Is({ text }: { text: string }) {
  if (!text.startsWith('+')) return <bdi>{text || 'blank'}</bdi>
  const [first = '', ...others] = text.split(', ')
  const [country = '', ...rest] = phone(first).split(' ')
  return (
    <>
      <b className="text-moss">{country}</b> {rest.join(' ')}
      {others.map((one) => `, ${phone(one)}`)}
    </>
  )
}

/** Leaves a repair out for a batch, or for the whole list, and brings it back. */
function LeaveWidely({ code, n, state }: { code: ChangeCode; n: number; state: TidyState }) {
  const { listId } = useListView()
  const { data: batches = [] } = useReadBatchesQuery({ params: { listId } })
  const [leave, leaving] = useLeaveOutWidelyMutation()
  const [back, comingBack] = useTakeActBackMutation()
  const isTidying = useJobUnderWay('tidy') !== undefined
  const out = state.leftOut.filter((one) => one.code === code)
  const ready = batches.filter(({ state: is }) => is === 'ready')
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-line pt-2">
      {n > 0 ? (
        <Button
          disabled={leaving.isLoading || isTidying}
          onClick={() => void leave({ params: { listId }, body: { code } })}
        >
          {n === 1 ? 'Leave it as it was' : `Leave all ${count(n)} as they were`}
        </Button>
      ) : null}
      {n > 0 && ready.length > 1 ? (
        <select
          aria-label="Leave out for one batch"
          value=""
          disabled={isTidying}
          onChange={(event) => void leave({ params: { listId }, body: { code, batchId: event.target.value } })}
          className="min-h-8 max-w-56 rounded-small border border-edge bg-surface px-2"
        >
          <option value="" disabled>
            … or those of one batch
          </option>
          {ready.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      ) : null}
      {out.map(({ actId, batch }) => (
        <p key={actId} className="text-straw-ink">
          Left out {batch === null ? 'everywhere' : `for ${batch}`}.{' '}
          <TextButton disabled={comingBack.isLoading || isTidying} onClick={() => void back({ params: { actId } })}>
            Mend again
          </TextButton>
        </p>
      ))}
      <Refused by={[leaving, comingBack]} />
    </div>
  )
}
