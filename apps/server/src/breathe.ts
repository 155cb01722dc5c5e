/** Rows worked on between two looks at what the database has to say: some milliseconds. */
export const BREATH = 10

/** Lets whatever else waits for this thread go on: what the database has answered, and what it is to be told next. */
export const breathe = (): Promise<void> => new Promise((resolve) => setImmediate(resolve))
