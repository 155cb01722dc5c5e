import { useSuppressRefusalsMutation } from '../api'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { ChooseSuppressionList } from '../suppression/ChooseSuppressionList'
import { plural } from '../words/format'

/** Whoever a remark says no for can be put on a suppression list, all at once. */
export function SuppressRefusals({ contacts }: { contacts: number }) {
  const { listId } = useListView()
  const [suppress, { data, error, isLoading }] = useSuppressRefusalsMutation()
  return (
    <div className="flex flex-wrap items-center gap-x-3 border-t border-line py-2">
      <div className="w-[420px] max-w-full">
        <ChooseSuppressionList
          label={`${plural(contacts, 'contact')} must not be contacted:`}
          isBusy={isLoading || contacts === 0}
          onChoose={(suppressionListId) => void suppress({ params: { listId }, body: { suppressionListId } })}
        />
      </div>
      {data ? (
        <p role="status" className="text-[13px]">
          {plural(data.added, 'number or address', 'numbers and addresses')} added, {plural(data.known, 'was', 'were')}{' '}
          on it already. {plural(data.marked, 'contact')} in all lists {data.marked === 1 ? 'is' : 'are'} parked now.
        </p>
      ) : null}
      <Refused by={[{ error }]} />
    </div>
  )
}
