import { useServiceNames } from '../connections/useConnected'
import { TextButton } from '../kit/Button'

interface LeftOutProps {
  readonly order: readonly string[]
  readonly everybody: readonly string[]
  readonly setOrder: (order: readonly string[]) => void
}

/** Services that this plan does not ask. */
export function LeftOut({ order, everybody, setOrder }: LeftOutProps) {
  const named = useServiceNames()
  const others = everybody.filter((id) => !order.includes(id))
  if (others.length === 0) return null
  return (
    <p className="pt-1 text-soft">
      Not asked:{' '}
      {others.map((id) => (
        <span key={id} className="pr-3">
          {named(id)}{' '}
          <TextButton onClick={() => setOrder([...order, id])} aria-label={`Ask ${named(id)} too`}>
            ask too
          </TextButton>
        </span>
      ))}
    </p>
  )
}
