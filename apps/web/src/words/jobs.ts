import type { Job } from '@upper-field/contract'
import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'

const JOB: Record<Job['kind'], string> = {
  'bring-in': 'Bringing in',
  harvest: 'Reading pages',
  directory: 'Fetching businesses from a directory',
  'take-back': 'Taking a batch back',
  'bring-back': 'Bringing a batch back',
  pair: 'Looking for who is one person',
  index: 'Preparing the search',
  mark: 'Marking who is suppressed',
  facts: 'Taking over what services told',
  check: 'Checking lines',
  fill: 'Filling',
  edition: 'Writing a file',
  prepare: 'Preparing an edition',
  deliver: 'Sending an audience',
  tidy: 'Tidying',
}

/** What a job does, as it is headed. */
export const jobTitle = ({ kind, unit }: Pick<Job, 'kind' | 'unit'>): string =>
  (kind === 'check' ? CHECKING[unit] : undefined) ?? JOB[kind]

const CHECKING: Readonly<Partial<Record<Job['unit'], string>>> = {
  addresses: 'Checking addresses',
  'do-not-call': 'Asking do-not-call registers',
}

/** Phases behind what a job counts, as its unit says. */
const BEHIND: ReadonlySet<string> = new Set(['joining', 'parting', 'counting'])

/** A job is beyond what it counts: how much of that is done tells nothing any more. */
export const isBeyondCounted = ({ state, phase }: Pick<Job, 'state' | 'phase'>): boolean =>
  state === 'running' && BEHIND.has(phase)

/** How much of a job is done, from 0 to 1: of the phase it is in, where that is told apart. */
export const shareOfJob = (job: Pick<Job, 'state' | 'phase' | 'done' | 'total' | 'phaseShare'>): number =>
  job.phaseShare ?? (isBeyondCounted(job) ? 1 : job.total ? Math.min(1, job.done / job.total) : 0)

export const JOB_PROBLEM: Record<string, string> = {
  ...FILE_PROBLEM_TEXT,
  'no-directory': 'This service is no directory of businesses any more. What was fetched before is kept.',
  'search-gone': 'This search is gone. Nothing was paid.',
  'no-connection': 'There is no key for this service. An owner can set one under Providers.',
  'key-unreadable':
    'The key of this service was sealed with a secret that is gone. An owner can give it again under Providers.',
  'address-refused': 'The address of this service may not be called from here. An owner can change it under Providers.',
  'too-many-items': 'The answer holds more items than a question can have. Nothing was taken of it.',
  'odd-answer': 'The service gave an answer that cannot be read. What was answered before is kept; go on later.',
  'answer-too-large': 'The service gave an answer far too long to be one. It was not read; go on later.',
  'answer-too-late': 'The service took too long to answer. What was answered is kept; go on later.',
  'key-refused': 'The service refused our key. Nothing more was asked.',
  'provider-gone': 'A service of this plan is not there any more. What was answered is kept; start another fill.',
  'question-refused': 'The service did not understand our question. Its connector can be tried under Providers.',
  'provider-failed': 'The service failed several times. What was answered is kept; go on later.',
  'batch-gone': 'The batch of this file is not there any more.',
  'network-refused': 'The network refused this. The audience says why, and what to do.',
  'costs-more':
    'There is more to ask about now than was agreed to, so nothing was asked and nothing paid. Start it again to see what it costs.',
  'price-changed': 'A service charges more than was agreed to. Nothing more is asked until you go on.',
  'budget-reached': 'The budget was reached; the others were not asked about.',
  'cut-off-often':
    'The server ended several times in the middle of the same step, so it is not tried again by itself. What was done is kept.',
  'disk-full':
    'The disk of the database is full. What was done is kept, and nothing else was changed; go on once there is room.',
  unexpected: 'Something failed on our side. What was done is kept; go on to try again.',
}
