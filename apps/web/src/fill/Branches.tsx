import { X } from 'lucide-react'
import { useState } from 'react'
import { useReadFillSampleQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { useListView } from '../shell/useListView'
import { usePiles } from '../shell/usePiles'
import { count, countryName } from '../words/format'
import { branchesTaught, type PlanDraft, withBranch, withoutBranch } from './plan'

interface BranchesProps {
  readonly plan: PlanDraft
  readonly setPlan: (plan: PlanDraft) => void
  /** The group that is shown; null for everybody else. */
  readonly shown: number | null
  readonly show: (branch: number | null) => void
}

/** Groups with an order of their own, and the ways to make one. */
export function Branches({ plan, setPlan, shown, show }: BranchesProps) {
  const { listId } = useListView()
  const [isAdding, setIsAdding] = useState(false)
  const { data: sample } = useReadFillSampleQuery({ params: { listId }, query: { order: plan.order.join(',') } })
  const taught = sample ? branchesTaught(sample, plan.order) : []
  const { branches } = plan
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 pb-2">
      {branches.length > 0 ? (
        <fieldset aria-label="Groups with an order of their own" className="flex flex-wrap gap-2">
          {branches.map(({ countries }, at) => (
            <span key={countries.join()} className="inline-flex">
              <GroupButton isShown={shown === at} onClick={() => show(at)}>
                {countries.map(countryName).join(', ')}
              </GroupButton>
              <button
                type="button"
                aria-label={`No order of its own for ${countries.map(countryName).join(', ')}`}
                className="rounded-small p-1 hover:bg-lichen"
                onClick={() => {
                  setPlan(withoutBranch(plan, at))
                  show(null)
                }}
              >
                <X size={14} aria-hidden="true" />
              </button>
            </span>
          ))}
          <GroupButton isShown={shown === null} onClick={() => show(null)}>
            Everybody else
          </GroupButton>
        </fieldset>
      ) : null}
      <TextButton className="text-[13px]" onClick={() => setIsAdding(true)}>
        Another order for some countries
      </TextButton>
      {taught.length > 0 && branches.length === 0 ? (
        <TextButton className="text-[13px]" onClick={() => setPlan({ ...plan, branches: taught })}>
          Orders by country, as the sample taught
        </TextButton>
      ) : null}
      {isAdding ? (
        <AddBranch
          onClose={() => setIsAdding(false)}
          onAdd={(countries) => {
            const next = withBranch(plan, countries)
            setPlan(next)
            show(next.branches.length > 0 ? next.branches.length - 1 : null)
            setIsAdding(false)
          }}
        />
      ) : null}
    </div>
  )
}

function GroupButton(props: { isShown: boolean; onClick: () => void; children: string }) {
  const { isShown, onClick, children } = props
  return (
    <button
      type="button"
      aria-pressed={isShown}
      className={`rounded-small border px-2 py-0.5 text-[13px] ${isShown ? 'border-moss bg-lichen font-semibold' : 'border-edge hover:bg-lichen'}`}
      onClick={onClick}
    >
      {children}
    </button>
  )
}

function AddBranch({ onAdd, onClose }: { onAdd: (countries: readonly string[]) => void; onClose: () => void }) {
  const { listId, text } = useListView()
  const { data, sign } = usePiles({ listId, text })
  const [chosen, setChosen] = useState<readonly string[]>([])
  const countries = Object.entries(data?.country ?? {}).filter(([code]) => code !== 'none')
  const toggle = (code: string) =>
    setChosen(chosen.includes(code) ? chosen.filter((one) => one !== code) : [...chosen, code])
  return (
    <Dialog title="Another order for some countries" isOpen onClose={onClose}>
      <div className="flex flex-col gap-3">
        <p className="text-soft">Their order begins as that of everybody else.</p>
        <ul className="grid max-h-[46vh] grid-cols-2 gap-x-4 overflow-y-auto">
          {countries.map(([code, n]) => (
            <li key={code}>
              <label className="flex min-h-7 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-moss"
                  checked={chosen.includes(code)}
                  onChange={() => toggle(code)}
                />
                <span className="min-w-0 flex-1 truncate">{countryName(code)}</span>
                <span className="num text-[13px] text-soft">
                  {sign}
                  {count(n)}
                </span>
              </label>
            </li>
          ))}
        </ul>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={chosen.length === 0} onClick={() => onAdd(chosen)}>
            Make the group
          </Button>
        </div>
      </div>
    </Dialog>
  )
}
