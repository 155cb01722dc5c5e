const BROWSERS = [
  [/\bEdg\//, 'Edge'],
  [/\bOPR\//, 'Opera'],
  [/\bFirefox\//, 'Firefox'],
  [/\b(?:Headless)?Chrome\//, 'Chrome'],
  [/\bSafari\//, 'Safari'],
] as const
const SYSTEMS = [
  [/Windows/, 'Windows'],
  [/iPhone|iPad/, 'iOS'],
  [/Mac OS X/, 'macOS'],
  [/Android/, 'Android'],
  [/Linux/, 'Linux'],
] as const

const nameIn = (names: readonly (readonly [RegExp, string])[], agent: string): string | undefined =>
  names.find(([pattern]) => pattern.test(agent))?.[1]

/** A browser as people call it, by what it says of itself; a program where it says nothing of the kind. */
export function browserName(agent: string | null): string {
  const browser = nameIn(BROWSERS, agent ?? '')
  if (!browser) return 'a program'
  const system = nameIn(SYSTEMS, agent ?? '')
  return system ? `${browser} on ${system}` : browser
}
