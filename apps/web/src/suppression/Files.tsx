import { useReadSuppressionBatchesQuery, useTakeSuppressionBackMutation } from '../api'
import { TextButton } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { count, date } from '../words/format'

/** Files that were brought to a suppression list, each with a way back. */
export function Files({ listId, mayChange }: { listId: string; mayChange: boolean }) {
  const { data: files = [] } = useReadSuppressionBatchesQuery({ params: { suppressionListId: listId } })
  const [takeBack, takingBack] = useTakeSuppressionBackMutation()
  const standing = files.filter(({ takenBackAt }) => takenBackAt === null)
  if (standing.length === 0) return null
  return (
    <section aria-label="Files" className="pb-5">
      <h2 className="pb-1">Files</h2>
      <Refused by={[takingBack]} />
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">File</th>
            <th>Brought in</th>
            <th>Reason</th>
            <th className="text-right">Rows</th>
            <th className="text-right">Without a key</th>
            <th className="text-right">Entries</th>
            <th>
              <span className="sr-only">Take back</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {standing.map(({ id, name, addedAt, addedBy, reason, rows, unread, entries }) => (
            <tr key={id} className="border-b border-line align-baseline">
              <td className="max-w-64 truncate py-1.5" title={name}>
                {name}
              </td>
              <td>
                {date(addedAt)} <span className="text-soft">by {addedBy}</span>
              </td>
              <td>{reason || <span className="text-soft">–</span>}</td>
              <td className="num text-right">{count(rows)}</td>
              <td className={`num text-right ${unread > 0 ? 'text-straw-ink' : ''}`}>{count(unread)}</td>
              <td className="num text-right">{count(entries)}</td>
              <td className="pl-4 text-right">
                {mayChange ? (
                  <TextButton
                    disabled={takingBack.isLoading}
                    onClick={() => void takeBack({ params: { suppressionBatchId: id } })}
                  >
                    Take back
                  </TextButton>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
