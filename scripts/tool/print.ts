import { once } from 'node:events'

/** Writes to standard output, no quicker than it is read: memory stays level. */
export async function print(text: string): Promise<void> {
  if (!process.stdout.write(text)) await once(process.stdout, 'drain')
}
