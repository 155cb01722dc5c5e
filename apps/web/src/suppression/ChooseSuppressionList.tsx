import { useReadSuppressionListsQuery } from '../api'

/** Puts whoever is meant on one of the suppression lists; nothing where there is none yet. */
export function ChooseSuppressionList({
  label,
  isBusy,
  onChoose,
}: {
  label: string
  isBusy: boolean
  onChoose: (suppressionListId: string) => void
}) {
  const { data: lists = [] } = useReadSuppressionListsQuery({})
  if (lists.length === 0) return null
  return (
    <label className="flex items-center gap-2 pt-1 text-[13px]">
      <span className="shrink-0 text-soft">{label}</span>
      <select
        value=""
        disabled={isBusy}
        onChange={(event) => onChoose(event.target.value)}
        className="min-h-7 min-w-0 flex-1 rounded-small border border-edge bg-surface px-1"
      >
        <option value="" disabled>
          put on a list …
        </option>
        {lists.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}
