/** Of so many contacts the words wait at most; those of more are read when they are stored. */
const MOST = 50_000

const waiting = new Map<string, Map<number, string>>()

/** The words of contacts that are being written, for whoever builds the index of their list meanwhile. */
export interface WordsAhead {
  /** The next of them, by the ids of their contacts; none where none wait. */
  take(most: number): ReadonlyMap<number, string>
  end(): void
}

/**
 * Gathers the words of contacts of a list while others write them in this process: they can be put into an index before
 * they are stored. What is never stored stands there otherwise than in the contact, and has to be put right.
 */
export function awaitWords(listId: string): WordsAhead {
  const mine = new Map<number, string>()
  waiting.set(listId, mine)
  return {
    take: (most) => {
      const taken = new Map<number, string>()
      for (const [id, words] of mine) {
        if (taken.size === most) break
        taken.set(id, words)
        mine.delete(id)
      }
      return taken
    },
    end: () => {
      if (waiting.get(listId) === mine) waiting.delete(listId)
    },
  }
}

/** Tells the words of a contact that is being written to whoever awaits those of its list. */
export function tellWords(listId: string, id: number, words: string): void {
  const told = waiting.get(listId)
  if (told && (told.size < MOST || told.has(id))) told.set(id, words)
}
