import type { Audience, AudienceDetail, Difference } from '@upper-field/contract'

const ID = '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d01'

/** An audience that is kept at a network and usable, made up. */
export const audience = (more: Partial<Audience> = {}): Audience => ({
  id: ID,
  listId: '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d02',
  name: 'Autumn terraces',
  title: 'Autumn terraces',
  destination: 'brassbell',
  takes: 'people',
  form: 'hashed',
  filter: '',
  suppressionListId: null,
  purpose: 'aim',
  account: { id: 'bb-4410', name: 'Wrenfold UK' },
  within: null,
  keepsDays: null,
  refreshDays: 30,
  removesByItself: true,
  state: 'usable',
  refusal: null,
  people: 100,
  matched: null,
  toldAt: null,
  lapsesAt: null,
  lastEditionAt: '2026-11-01T08:00:00.000Z',
  dueAt: null,
  cameSince: 0,
  leftSince: 0,
  isBehind: false,
  owedRemovals: 0,
  owedSince: null,
  forecast: null,
  latest: null,
  similarTo: null,
  createdAt: '2026-11-01T08:00:00.000Z',
  ...more,
})

/** The same opened. */
export const opened = (more: Partial<AudienceDetail> = {}): AudienceDetail => ({
  ...audience(),
  difference: null,
  preparing: null,
  deliveries: [],
  trials: [],
  sources: [],
  ...more,
})

/** What its next edition would change, made up. */
export const difference = (more: Partial<Difference> = {}): Difference => ({
  editionId: '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d03',
  fileName: 'autumn.csv',
  way: 'changes',
  people: 100,
  leftOut: 0,
  comes: 3,
  leaves: 0,
  leavesSuppressed: 0,
  changed: 0,
  stays: 97,
  renewed: 0,
  forecast: { low: 30, middle: 40, high: 50, people: 100, byKind: [], oneMore: [], learntFrom: 0 },
  suppressedSince: 0,
  madeAt: '2026-11-28T08:00:00.000Z',
  ...more,
})
