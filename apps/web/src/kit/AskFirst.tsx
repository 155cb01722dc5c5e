import { type ReactNode, useState } from 'react'
import { Button } from './Button'
import { Dialog } from './Dialog'

interface AskFirstProps {
  readonly title: string
  /** What is lost, and what happens then. */
  readonly says: ReactNode
  /** What the button is called that does it. */
  readonly does: string
  readonly onDo: () => void
  /** What begins it, told how to ask. */
  readonly children: (ask: () => void) => ReactNode
}

/** Asks once more before something that nobody can take back. */
export function AskFirst({ title, says, does, onDo, children }: AskFirstProps) {
  const [isAsking, setAsking] = useState(false)
  const close = () => setAsking(false)
  return (
    <>
      {children(() => setAsking(true))}
      <Dialog title={title} isOpen={isAsking} onClose={close}>
        <div className="flex flex-col gap-4">
          <div>{says}</div>
          <div className="flex justify-end gap-2">
            <Button onClick={close}>Cancel</Button>
            <Button
              look="danger"
              onClick={() => {
                close()
                onDo()
              }}
            >
              {does}
            </Button>
          </div>
        </div>
      </Dialog>
    </>
  )
}
