import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

export function Dialog({
  title,
  isOpen,
  onClose,
  children,
  isWide = false,
}: {
  title: string
  isOpen: boolean
  onClose: () => void
  children: ReactNode
  isWide?: boolean
}) {
  return (
    <Radix.Root open={isOpen} onOpenChange={(open) => (open ? undefined : onClose())}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Radix.Content
          aria-describedby={undefined}
          className={`fixed left-1/2 top-24 z-50 max-h-[80vh] -translate-x-1/2 overflow-auto rounded-small border border-edge bg-surface p-5 shadow-xl ${isWide ? 'w-[640px]' : 'w-[420px]'} max-w-[94vw]`}
        >
          <Radix.Title className="pb-3">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
