import type { KeyScope, MachineKey, WebhookEvent, WebhookMessage } from '@upper-field/contract'
import { date, money } from '../words/format'

export const SCOPE_TEXT: Readonly<Record<KeyScope, readonly [name: string, what: string]>> = {
  check: ['Check', 'judge numbers and addresses'],
  add: ['Add', 'add people to lists'],
  read: ['Read', 'read lists, contacts and what became of them'],
  suppress: ['Suppress', 'add people to suppression lists'],
  deliver: ['Deliver', 'prepare and send audiences'],
}

export const EVENT_TEXT: Readonly<Record<WebhookEvent, string>> = {
  'contact.judged': 'a contact was checked',
  'contact.filled': 'a value was found for a contact',
  'contact.placed': 'a contact that was added has its lane',
  'contact.suppressed': 'a contact was suppressed',
  'batch.ready': 'a batch is ready',
  'delivery.state': 'a delivery has another state',
  'budget.reached': 'a budget is reached',
}

const PROBLEM: Readonly<Record<string, string>> = {
  'not-taken': 'was not taken',
  'too-slow': 'took too long',
  'not-reached': 'nobody answered',
  'private-address': 'leads to a private address',
  'no-such-name': 'the name does not resolve',
  'plain-http': 'is without encryption',
  scheme: 'is no web address',
  'secret-lost': 'its secret cannot be opened',
}

/** Where a key stands: withdrawn, ended, or what it may still do. */
export function keyState(key: MachineKey, now: number): { readonly text: string; readonly isOver: boolean } {
  if (key.withdrawnAt) return { text: `withdrawn ${date(key.withdrawnAt)}`, isOver: true }
  if (key.expiresAt && Date.parse(key.expiresAt) <= now) return { text: `ended ${date(key.expiresAt)}`, isOver: true }
  return { text: key.expiresAt ? `until ${date(key.expiresAt)}` : 'without an end', isOver: false }
}

export const budgetText = ({ budget, spent }: Pick<MachineKey, 'budget' | 'spent'>): string =>
  budget === 0 ? 'may spend nothing' : `${money(spent)} of ${money(budget)} this month`

/** What became of a message, in a few words. */
export function messageText({ state, tries, status, problem }: WebhookMessage): string {
  const how = problem === null ? '' : ` · ${PROBLEM[problem] ?? problem}${status === null ? '' : ` (${status})`}`
  if (state === 'sent') return `taken (${status})`
  if (state === 'failed') return `given up after ${tries} tries${how}`
  return tries === 0 ? 'waiting' : `tried ${tries === 1 ? 'once' : `${tries} times`}${how}, again later`
}
