import type { List } from '@upper-field/contract'

/** A list as its views are shown in it, made up. */
export const listOf = (more: Partial<List> = {}): List => ({
  id: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  name: 'Autumn terraces',
  contacts: 120,
  batches: 2,
  createdAt: '2026-11-20T09:00:00Z',
  changedAt: '2026-11-28T09:00:00Z',
  archivedAt: null,
  terrace: [],
  ...more,
})
