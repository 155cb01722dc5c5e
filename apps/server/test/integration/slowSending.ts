import { connect, type Socket } from 'node:net'

interface Beginning {
  readonly batchId: string
  /** How long the whole is said to be. */
  readonly bytes: number
  readonly part: Buffer
  /** Of a session. */
  readonly cookie: string
}

/** Begins to send the file of a batch and says no more, as a slow or vanished client does. */
export function beginToSend(url: string, { batchId, bytes, part, cookie }: Beginning): Socket {
  const { port, host } = new URL(url)
  const socket = connect(Number(port), '127.0.0.1')
  socket.on('error', () => {})
  socket.write(
    [
      `PUT /api/v1/batches/${batchId}/content HTTP/1.1`,
      `Host: ${host}`,
      `Origin: ${url}`,
      `Cookie: ${cookie}`,
      'Content-Type: application/octet-stream',
      `Content-Length: ${bytes}`,
      '',
      '',
    ].join('\r\n'),
  )
  socket.write(part)
  return socket
}
