import type { ReactNode } from 'react'

interface IconButtonProps {
  readonly label: string
  readonly isOff?: boolean
  readonly onClick: () => void
  readonly children: ReactNode
}

/** A small act beside a line, shown by its icon and told by its label. */
export function IconButton({ label, isOff = false, onClick, children }: IconButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={isOff}
      onClick={onClick}
      className="rounded-small p-1 hover:bg-lichen disabled:opacity-30"
    >
      {children}
    </button>
  )
}
