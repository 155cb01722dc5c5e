import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'

/** A secret, once: whoever closes this never sees it again. */
export function ShownOnce({ title, secret, onClose }: { title: string; secret: string; onClose: () => void }) {
  return (
    <Dialog title={title} isOpen onClose={onClose} isWide>
      <div className="flex flex-col gap-3">
        <p>It is shown this once, and kept nowhere as it is. Put it where the program finds it, and nowhere else.</p>
        <output aria-label="The secret" className="num break-all rounded-small border border-edge bg-paper px-3 py-2">
          {secret}
        </output>
        <div className="flex justify-end gap-2">
          <Button onClick={() => void navigator.clipboard.writeText(secret)}>Copy</Button>
          <Button look="main" onClick={onClose}>
            I have it
          </Button>
        </div>
      </div>
    </Dialog>
  )
}
