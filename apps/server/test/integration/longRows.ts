/** A file of people with names so long that few rows fill a piece of an upload; each has a number of their own. */
export const longRows = (count: number, name = 'Person'): Buffer =>
  Buffer.from(
    `name,phone\n${Array.from({ length: count }, (_, i) => `${name} Number ${i}${' of a very long name'.repeat(14)},+4479112${String(i).padStart(5, '0')}`).join('\n')}\n`,
  )
