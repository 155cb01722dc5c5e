import { useReadFillsQuery } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { useListView } from '../shell/useListView'
import { money } from '../words/format'

/** Which services charge more than was agreed to: the run rests until somebody lets it go on. */
export function NewPrices() {
  const { listId } = useListView()
  const { data: runs = [] } = useReadFillsQuery({ params: { listId } })
  const named = useServiceNames()
  const newPrices = runs[0]?.newPrices ?? []
  if (newPrices.length === 0) return null
  return (
    <ul className="pb-1 text-[13px]">
      {newPrices.map(({ provider, agreed, now }) => (
        <li key={provider}>
          <span className="font-semibold">{named(provider)}</span> charges <span className="num">{money(now)}</span>{' '}
          now, not <span className="num">{money(agreed)}</span>.
        </li>
      ))}
    </ul>
  )
}
