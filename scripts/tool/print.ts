import { once } from 'node:events'

/** Writes to standard output, or to another stream, no quicker than it is read: memory stays level. */
export async function print(text: string, stream: NodeJS.WritableStream = process.stdout): Promise<void> {
  if (!stream.write(text)) await once(stream, 'drain')
}
