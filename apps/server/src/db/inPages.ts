/** A list in parts of one size, in order; the last may be smaller. */
export const inPages = <T>(all: readonly T[], size: number): readonly (readonly T[])[] =>
  Array.from({ length: Math.ceil(all.length / size) }, (_, at) => all.slice(at * size, (at + 1) * size))
