/** Colours of accounts: each has its own, always beside its name. */
const COLOURS = [
  '#2f6fa8',
  '#b0532a',
  '#5b8a1e',
  '#8a3d8f',
  '#c08a10',
  '#1f8a80',
  '#c2416b',
  '#5a5fc0',
  '#7a6a4f',
  '#3f9a4f',
] as const

/** The colour of an account: the same everywhere, by its id alone (FNV-1a). */
export function colourOf(accountId: string): string {
  let hash = 0x811c9dc5
  for (const letter of accountId) hash = Math.imul(hash ^ letter.charCodeAt(0), 0x01000193)
  return COLOURS[(hash >>> 8) % COLOURS.length] ?? COLOURS[0]
}

/** An account, with the colour it has at every step. */
export const AccountName = ({ id, name }: { id: string; name: string }) => (
  <span className="inline-flex items-baseline gap-1.5 font-semibold">
    <svg aria-hidden="true" width="9" height="9" className="shrink-0 self-center">
      <rect width="9" height="9" rx="2" fill={colourOf(id)} />
    </svg>
    {name}
  </span>
)
