/** What a suppression list keeps people out of. */
export const SCOPES = ['all', 'texts', 'calls', 'post', 'ads'] as const
export type Scope = (typeof SCOPES)[number]

/** Ways to reach somebody that can be closed one by one. */
export type Use = Exclude<Scope, 'all'>

/** What several lists keep somebody out of together, each once and in a fixed order; `all` takes in the rest. */
export function joinScopes(scopes: Iterable<Scope>): readonly Scope[] {
  const known = new Set(scopes)
  return known.has('all') ? ['all'] : SCOPES.filter((scope) => known.has(scope))
}

/** What these keys of a contact keep it out of. */
export const scopesOfKeys = (keys: readonly string[], scopesOf: (key: string) => readonly Scope[]): readonly Scope[] =>
  joinScopes(keys.flatMap(scopesOf))

/** True where a contact that is suppressed for these may not be reached in this way. */
export const isClosed = (suppressedFor: readonly Scope[], use: Use): boolean =>
  suppressedFor.includes('all') || suppressedFor.includes(use)
