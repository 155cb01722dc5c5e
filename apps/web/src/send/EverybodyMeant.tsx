/** Where a filter chooses everybody, that has to be said once more. */
export const EverybodyMeant = ({
  problem,
  isMeant,
  onChange,
}: {
  /** Why an audience could not be kept. */
  problem: unknown
  isMeant: boolean
  onChange: (isMeant: boolean) => void
}) =>
  (problem as { code?: string } | undefined)?.code === 'whole-list' ? (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="accent-moss"
        checked={isMeant}
        onChange={(event) => onChange(event.target.checked)}
      />
      Everybody of the list is meant
    </label>
  ) : null
