/** How often something is looked at. */
const EVERY_MS = 20
/** For how long, in seconds: a busy machine may take many times as long as a quiet one. */
const PATIENCE = 180

/** Waits until something is so; a look that fails counts as "not yet". Fails, saying so, where it never is. */
export async function until(isSo: () => Promise<boolean> | boolean): Promise<void> {
  const tooLate = Date.now() + PATIENCE * 1000
  while (!(await looked(isSo))) {
    if (Date.now() > tooLate) throw new Error(`After ${PATIENCE} s it is still not so: ${isSo}`)
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
export async function untilIs<T>(read: () => Promise<T>, isSo: (value: T) => boolean): Promise<T> {
  let value = await read()
  await until(async () => {
    value = await read()
    return isSo(value)
  })
  return value
}
