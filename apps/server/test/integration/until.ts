/** How often something is looked at, and after how many ms nobody waits any longer. */
const EVERY_MS = 20
const PATIENCE_MS = 30_000

/** Waits until something is so; a look that fails counts as "not yet". Fails, saying so, where it never is. */
export async function until(isSo: () => Promise<boolean> | boolean): Promise<void> {
  const tooLate = Date.now() + PATIENCE_MS
  while (!(await looked(isSo))) {
    if (Date.now() > tooLate) throw new Error(`After ${PATIENCE_MS / 1000} s it is still not so: ${isSo}`)
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
