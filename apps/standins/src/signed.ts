import { Webhook } from 'standardwebhooks'

/** Headers that tell that a call of ours is ours, as Standard Webhooks write them. */
export function signed(key: string, body: string, at = new Date()): Record<string, string> {
  const id = `msg_${crypto.randomUUID()}`
  const signature = new Webhook(Buffer.from(key).toString('base64')).sign(id, at, body)
  return {
    'webhook-id': id,
    'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
    'webhook-signature': signature,
  }
}
