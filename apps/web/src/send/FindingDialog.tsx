import type { Preflight } from '@upper-field/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useReadFindingQuery } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { ReadState } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { countryName, phone } from '../words/format'

interface FindingDialogProps {
  readonly flight: Preflight
  readonly finding: string
  readonly name: string
  readonly onClose: () => void
}

/** The contacts that a count of the preflight counts. */
export function FindingDialog({ flight, finding, name, onClose }: FindingDialogProps) {
  const { listId, text } = useListView()
  const [starts, setStarts] = useState<readonly number[]>([0])
  const after = starts.at(-1) ?? 0
  const asked = useReadFindingQuery({
    params: { listId },
    query: { filter: text, destination: flight.destination, takes: flight.takes, finding, after },
  })
  const { data } = asked
  return (
    <Dialog title={name} isOpen isWide onClose={onClose}>
      <ReadState of={asked} what="the contacts" />
      {data ? (
        <ul className="text-[13.5px]">
          {data.contacts.map((one) => (
            <li key={one.id} className="grid grid-cols-[1.3fr_1fr_1.4fr_0.8fr] gap-3 border-t border-line py-1">
              <Link
                to={`/lists/${listId}/tidy?contact=${one.id}`}
                className="truncate text-slate underline underline-offset-2"
              >
                {one.fullName || one.company || 'no name'}
              </Link>
              <span className="num truncate">{one.number ? phone(one.number) : one.rawNumber}</span>
              <span className="truncate">{one.email ?? ''}</span>
              <span className="truncate text-soft">{countryName(one.country)}</span>
            </li>
          ))}
        </ul>
      ) : null}
      <div className="flex justify-end gap-2 pt-3">
        {starts.length > 1 ? <Button onClick={() => setStarts(starts.slice(0, -1))}>Back</Button> : null}
        {data?.next ? <Button onClick={() => setStarts([...starts, data.next ?? 0])}>More</Button> : null}
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  )
}
