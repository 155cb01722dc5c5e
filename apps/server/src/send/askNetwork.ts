import { refusalOf } from '@upper-field/core/send'
import { Problem } from '../http/problem'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'
import { findDestination } from './destinations'
import type { AudienceRow } from './difference'
import { type NetworkClient, NetworkRefused, openNetwork } from './networkClient'

/** The network an audience is kept at. Throws a problem where it cannot be asked. */
export const networkOf = async (services: Services, { destination }: AudienceRow): Promise<NetworkClient> => {
  const found = await findDestination(services.db, destination)
  return asked(() => openNetwork(services, found))
}

const WHY_NOT_ASKED: Readonly<Record<string, string>> = {
  'no-connection': 'There is no key for this network. An owner gives one under Destinations.',
  'key-unreadable': 'The key of this network cannot be opened. An owner gives it again under Destinations.',
  'key-refused': 'The network refuses our key. An owner gives another under Destinations.',
  'address-refused': 'The address of this network is not allowed.',
  'odd-answer': 'The network answered something that cannot be read.',
  'answer-too-late': 'The network did not answer in time. Try again in a while.',
  'provider-failed': 'The network is not there just now. Try again in a while.',
}

/** Asks a network now. What stops that is a problem in words. */
export async function asked<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask()
  } catch (error) {
    if (!(error instanceof JobProblem)) throw error
    const why = WHY_NOT_ASKED[error.code] ?? 'The network cannot be asked just now.'
    throw new Problem(error.code === 'no-connection' ? 409 : 502, error.code, `${why} Nothing was sent.`, {
      cause: error,
    })
  }
}

/** The same where the network itself may say no. @param allowed codes that do not matter */
export async function told<T>(
  { destination }: AudienceRow,
  { calls }: NetworkClient,
  ask: () => Promise<T>,
  allowed: readonly string[] = [],
): Promise<T> {
  try {
    return await asked(ask)
  } catch (error) {
    if (!(error instanceof NetworkRefused)) throw error
    if (allowed.includes(error.code)) return undefined as T
    const { says, remedy } = refusalOf(calls.refusals, error.code)
    throw new Problem(409, 'network-refused', `${destination}: ${says} ${remedy}`, { cause: error })
  }
}
