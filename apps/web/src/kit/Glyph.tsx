import type { LineType } from '@upper-field/core/phone'

/** Each line type's own mark: told apart by shape, not by colour. */
export function Glyph({ type }: { type: LineType | string }) {
  return (
    <svg
      viewBox="0 0 16 16"
      width="16"
      height="16"
      aria-hidden="true"
      className="inline-block shrink-0 align-[-3px]"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
    >
      {shapeOf(type)}
    </svg>
  )
}

function shapeOf(type: string) {
  switch (type) {
    case 'mobile':
      return <path d="M8 2v12" strokeWidth="4" />
    case 'fixed':
      return <path d="M2 8h12" strokeWidth="4" />
    case 'fixed-or-mobile':
      return <path d="M8 2v12M2 8h12" strokeWidth="3.2" />
    case 'voip':
      return <path d="M1.5 9.5c2-6 4.5-6 6.5-1.5s4.5 4.5 6.5-1.5" strokeWidth="2.2" />
    case 'toll-free':
      return <circle cx="8" cy="8" r="4.5" />
    case 'premium':
      return <path d="M8 2.5 14 13H2z" fill="currentColor" stroke="none" />
    case 'unknown':
      return <circle cx="8" cy="8" r="2.2" fill="currentColor" stroke="none" />
    default:
      return <path d="M3.5 3.5h9v9h-9z" />
  }
}
