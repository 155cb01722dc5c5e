import { z } from 'zod'
import {
  Added,
  AddedContact,
  AddedContacts,
  JudgeAsked,
  Judged,
  MachineCall,
  MachineKey,
  MadeMachineKey,
  MadeWebhook,
  NewMachineKey,
  NewWebhook,
  WebhookChange,
  WebhookLine,
  WebhookMessage,
} from '../machine'
import { Id } from '../words'
import { endpoint, nothing, OfList } from './endpoint'

const OfKey = z.object({ keyId: Id })
const OfWebhook = z.object({ webhookId: Id })

/** For other programs, and for whoever lets them in. */
export const machineEndpoints = {
  judge: endpoint('post', '/judge', 'Tell everything that is known of a number or an address, in one answer', {
    body: JudgeAsked,
    response: Judged,
    scope: 'check',
  }),
  addContacts: endpoint('post', '/lists/{listId}/contacts', 'Add people to a list', {
    params: OfList,
    body: AddedContacts,
    response: Added,
    role: 'operator',
    scope: 'add',
    isIdempotent: true,
    sendsRows: true,
  }),
  readAdded: endpoint('get', '/lists/{listId}/added/{theirId}', 'What became of a contact that was added', {
    params: OfList.extend({ theirId: z.string().max(200) }),
    response: AddedContact,
    scope: 'read',
  }),
  readMachineKeys: endpoint('get', '/machine-keys', 'Keys of other programs', {
    response: z.array(MachineKey),
    role: 'operator',
  }),
  makeMachineKey: endpoint('post', '/machine-keys', 'Make a key for a program; its secret is shown once', {
    body: NewMachineKey,
    response: MadeMachineKey,
    role: 'owner',
  }),
  rotateMachineKey: endpoint(
    'post',
    '/machine-keys/{keyId}/rotate',
    'Give a key a new secret; the old one ends at once',
    {
      params: OfKey,
      response: MadeMachineKey,
      role: 'owner',
    },
  ),
  withdrawMachineKey: endpoint('delete', '/machine-keys/{keyId}', 'Withdraw a key; it is refused at once', {
    params: OfKey,
    response: MachineKey,
    role: 'owner',
  }),
  readMachineCalls: endpoint('get', '/machine-keys/{keyId}/calls', 'The latest calls of a key', {
    params: OfKey,
    response: z.array(MachineCall),
    role: 'operator',
  }),
  readWebhooks: endpoint('get', '/webhooks', 'Who is told what happens', {
    response: z.array(WebhookLine),
    role: 'operator',
  }),
  makeWebhook: endpoint('post', '/webhooks', 'Have a program told; the secret that signs is shown once', {
    body: NewWebhook,
    response: MadeWebhook,
    role: 'owner',
  }),
  changeWebhook: endpoint('patch', '/webhooks/{webhookId}', 'Switch a webhook on or off', {
    params: OfWebhook,
    body: WebhookChange,
    response: WebhookLine,
    role: 'owner',
  }),
  removeWebhook: endpoint('delete', '/webhooks/{webhookId}', 'Remove a webhook', {
    params: OfWebhook,
    response: nothing,
    role: 'owner',
  }),
  readWebhookMessages: endpoint('get', '/webhooks/{webhookId}/messages', 'What a webhook was told, the latest first', {
    params: OfWebhook,
    response: z.array(WebhookMessage),
    role: 'operator',
  }),
  sendWebhookAgain: endpoint('post', '/webhook-messages/{messageId}/again', 'Send a message once more', {
    params: z.object({ messageId: Id }),
    response: WebhookMessage,
    role: 'operator',
  }),
}
