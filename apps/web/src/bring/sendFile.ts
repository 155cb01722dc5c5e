import { addressOf, type ProblemDetails } from '@upper-field/contract'

/**
 * Streams a file to the server and tells how far it is. The browser reads it from the disk as it goes.
 * @returns null when all of it arrived, else a sentence saying what happened
 */
export function sendFile(
  batchId: string,
  file: Blob,
  { onProgress, signal }: { onProgress: (share: number) => void; signal: AbortSignal },
): Promise<string | null> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest()
    request.open('PUT', addressOf('sendContent', { params: { batchId } }))
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.addEventListener('progress', ({ loaded, total }) => onProgress(total === 0 ? 0 : loaded / total))
    request.addEventListener('load', () => resolve(request.status < 300 ? null : sentenceOf(request.responseText)))
    request.addEventListener('error', () =>
      resolve('The connection broke before the whole file had arrived. Nothing of it was kept; bring it in again.'),
    )
    request.addEventListener('abort', () => resolve('Sending was stopped. Nothing of the file was kept.'))
    signal.addEventListener('abort', () => request.abort())
    request.send(file)
  })
}

function sentenceOf(body: string): string {
  try {
    return (JSON.parse(body) as ProblemDetails).detail
  } catch {
    return 'The application refused the file and gave no reason. Nothing was kept.'
  }
}
