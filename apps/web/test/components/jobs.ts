import type { Job } from '@upper-field/contract'

export const JOB_ID = '7f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11'

/** A job as it is told, made up. */
export const jobOf = (more: Partial<Job> = {}): Job => ({
  id: JOB_ID,
  kind: 'directory',
  listId: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  state: 'done',
  phase: 'fetching',
  phaseShare: null,
  done: 45,
  total: 45,
  before: 0,
  unit: 'businesses',
  problem: null,
  result: {},
  startedBy: 'Maren Oldershaw',
  createdAt: '2026-11-28T09:00:00Z',
  startedAt: '2026-11-28T09:00:00Z',
  finishedAt: '2026-11-28T09:01:00Z',
  ...more,
})
