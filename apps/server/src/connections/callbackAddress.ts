import type { Config } from '../config'

/** Where a service brings the answer to a question. */
export function callbackAddress(config: Config, question: string, signature: string): string {
  const base = config.publicUrl ?? `http://${config.host}:${config.port}`
  return `${base}/api/v1/callbacks/${question}/${signature}`
}
