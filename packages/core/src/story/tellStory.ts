/** One thing that happened to a contact. `what` is a code with its facts; the sentence is written in the client. */
export interface StoryEntry<What> {
  /** ISO 8601 with zone. */
  readonly at: string
  readonly what: What
}

/** Entries in the order in which they happened; what happened at one moment stays in the order given. */
export function tellStory<What>(...parts: readonly (readonly StoryEntry<What>[])[]): readonly StoryEntry<What>[] {
  return parts
    .flat()
    .map((entry, i) => ({ entry, i }))
    .sort((a, b) => Date.parse(a.entry.at) - Date.parse(b.entry.at) || a.i - b.i)
    .map(({ entry }) => entry)
}
