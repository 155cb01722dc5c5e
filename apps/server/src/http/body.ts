import type { Context } from 'hono'
import { Problem } from './problem'

export interface BodyBounds {
  readonly bytes: number
  /** How long the whole body may take. */
  readonly seconds: number
}

/**
 * The body of a call as text, never held beyond its bound: refused by its declared size before a byte is read, and
 * while it is read where it declares none. The connection of a refused one is closed.
 */
export async function readBody(c: Context, { bytes, seconds }: BodyBounds): Promise<string> {
  const refuse = (problem: Problem): never => {
    c.header('connection', 'close')
    throw problem
  }
  if (Number(c.req.header('content-length') ?? 0) > bytes) refuse(bodyTooLarge(bytes))
  const body = c.req.raw.body
  if (!body) return ''
  const reader = body.getReader()
  const parts: Uint8Array[] = []
  let size = 0
  const until = Date.now() + seconds * 1000
  for (;;) {
    const { done, value } = await readWithin(reader, until - Date.now()).catch(async (problem: Problem) => {
      await reader.cancel().catch(() => {})
      return refuse(problem)
    })
    if (done) return new TextDecoder().decode(Buffer.concat(parts))
    size += value.byteLength
    if (size > bytes) {
      await reader.cancel().catch(() => {})
      refuse(bodyTooLarge(bytes))
    }
    parts.push(value)
  }
}

/** The next chunk of a body. Throws a problem where none comes in time. */
export async function readWithin(
  reader: ReadableStreamDefaultReader<Uint8Array>,
  milliseconds: number,
): Promise<Awaited<ReturnType<typeof reader.read>>> {
  let timer: NodeJS.Timeout | undefined
  const tooSlow = new Promise<never>((_, reject) => {
    timer = setTimeout(
      () => reject(new Problem(408, 'too-slow', 'The rest of this call did not arrive in time. Send it again.')),
      Math.max(0, milliseconds),
    )
  })
  try {
    return await Promise.race([reader.read(), tooSlow])
  } finally {
    clearTimeout(timer)
  }
}

const bodyTooLarge = (limit: number): Problem =>
  new Problem(
    413,
    'body-too-large',
    `This call is larger than ${(limit / 1_000_000).toLocaleString('en')} MB, the most that is taken here. Nothing of it was read.`,
  )
