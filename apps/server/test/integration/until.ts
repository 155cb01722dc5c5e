/** How often something is looked at. */
const EVERY_MS = 20

/**
 * Waits until something is so; a look that fails counts as "not yet". Fails, saying so, where it never is.
 * @param seconds after which nobody waits any longer
 */
export async function until(isSo: () => Promise<boolean> | boolean, seconds = 30): Promise<void> {
  const tooLate = Date.now() + seconds * 1000
  while (!(await looked(isSo))) {
    if (Date.now() > tooLate) throw new Error(`After ${seconds} s it is still not so: ${isSo}`)
    await new Promise((resolve) => setTimeout(resolve, EVERY_MS))
  }
}

async function looked(isSo: () => Promise<boolean> | boolean): Promise<boolean> {
  try {
    return await isSo()
  } catch {
    return false
  }
}

/** Reads something again and again until it is as wanted. @returns what was read then */
export async function untilIs<T>(read: () => Promise<T>, isSo: (value: T) => boolean, seconds = 30): Promise<T> {
  let value = await read()
  await until(async () => {
    value = await read()
    return isSo(value)
  }, seconds)
  return value
}
