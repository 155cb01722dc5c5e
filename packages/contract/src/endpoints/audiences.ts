import { z } from 'zod'
import { Account, Audience, AudienceDetail, Delivery, DestinationKey, NewAudience } from '../audience'
import { Edition } from '../send'
import { Id } from '../words'
import { endpoint, nothing, OfList } from './endpoint'

const OfDestination = z.object({ destinationId: z.string().max(40) })
const OfAudience = z.object({ audienceId: Id })

/** Audiences kept at networks: editions, deliveries, and what came of them. */
export const audienceEndpoints = {
  readDestinationKeys: endpoint('get', '/destination-keys', 'Which networks there is a key for', {
    response: z.array(DestinationKey),
  }),
  keepDestinationKey: endpoint('put', '/destinations/{destinationId}/key', 'Give the key of a network', {
    params: OfDestination,
    body: z.object({ address: z.url({ protocol: /^https?$/ }).max(500), key: z.string().min(1).max(500) }),
    response: DestinationKey,
    role: 'owner',
  }),
  removeDestinationKey: endpoint('delete', '/destinations/{destinationId}/key', 'Forget the key of a network', {
    params: OfDestination,
    response: nothing,
    role: 'owner',
  }),
  readAccounts: endpoint(
    'get',
    '/destinations/{destinationId}/accounts',
    'Accounts at a network, and what each lacks',
    {
      params: OfDestination,
      response: z.array(Account),
    },
  ),
  readAudiences: endpoint('get', '/lists/{listId}/audiences', 'Audiences of a list', {
    params: OfList,
    scope: 'deliver',
    response: z.array(Audience),
  }),
  makeAudience: endpoint('post', '/lists/{listId}/audiences', 'Make an audience of a list; nothing is sent yet', {
    params: OfList,
    body: NewAudience,
    response: Audience,
    role: 'operator',
    isIdempotent: true,
  }),
  readAudience: endpoint('get', '/audiences/{audienceId}', 'An audience with its next edition and its deliveries', {
    params: OfAudience,
    scope: 'deliver',
    response: AudienceDetail,
  }),
  changeAudience: endpoint('patch', '/audiences/{audienceId}', 'Change what an audience is made of, or when', {
    params: OfAudience,
    body: z.object({
      name: z.string().trim().min(1).max(120).optional(),
      filter: z.string().max(2000).optional(),
      isWholeList: z.boolean().optional(),
      refreshDays: z.int().min(1).max(365).optional(),
      removesByItself: z.boolean().optional(),
    }),
    response: Audience,
    role: 'operator',
  }),
  removeAudience: endpoint('delete', '/audiences/{audienceId}', 'Take an audience away, at its network too', {
    params: OfAudience,
    response: nothing,
    role: 'operator',
  }),
  prepareEdition: endpoint('post', '/audiences/{audienceId}/editions', 'Prepare the next edition of an audience', {
    params: OfAudience,
    scope: 'deliver',
    response: Edition,
    role: 'operator',
    isIdempotent: true,
  }),
  deliverEdition: endpoint('post', '/audiences/{audienceId}/deliveries', 'Send an edition to its network', {
    params: OfAudience,
    body: z.object({ editionId: Id, account: z.string().max(200) }),
    scope: 'deliver',
    response: Delivery,
    role: 'operator',
    isIdempotent: true,
  }),
  deliverRemovals: endpoint('post', '/audiences/{audienceId}/removals', 'Take out at once whoever has to leave', {
    params: OfAudience,
    response: Delivery,
    role: 'operator',
    isIdempotent: true,
  }),
  lookAtAudience: endpoint('post', '/audiences/{audienceId}/look', 'Ask the network how an audience stands', {
    params: OfAudience,
    response: Audience,
    role: 'operator',
  }),
  startTrial: endpoint('post', '/audiences/{audienceId}/trials', 'Run a small campaign to learn how many match', {
    params: OfAudience,
    body: z.object({
      exclude: z.array(Id).max(20).default([]),
      daily: z.number().min(1).max(1000),
      days: z.int().min(1).max(30),
    }),
    response: AudienceDetail,
    role: 'operator',
    isIdempotent: true,
  }),
  makeSimilar: endpoint('post', '/audiences/{audienceId}/similar', 'Have the network find similar people', {
    params: OfAudience,
    body: z.object({
      country: z.string().regex(/^[A-Z]{2}$/),
      closeness: z.int().min(1).max(10),
      name: z.string().trim().min(1).max(120),
    }),
    response: Audience,
    role: 'operator',
    isIdempotent: true,
  }),
}
