/** Colours of accounts: each has its own, always beside its name. */
const COLOURS = ['#2f6fa8', '#a34a1f', '#5b7a1e', '#8a3d8f', '#b0730c', '#1f7f78'] as const

/** The colour of an account: the same everywhere, by its id alone. */
export function colourOf(accountId: string): string {
  let hash = 7
  for (const letter of accountId) hash = (hash * 31 + letter.charCodeAt(0)) % 9973
  return COLOURS[hash % COLOURS.length] ?? COLOURS[0]
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
