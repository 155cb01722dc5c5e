import type { ReactNode } from 'react'
import { createPortal } from 'react-dom'

/** Puts parts of a view into the frame's header, which stands above it. */
export function InHeader({ place, children }: { place: 'list-name' | 'list-search'; children: ReactNode }) {
  const target = document.getElementById(place)
  return target ? createPortal(children, target) : null
}
