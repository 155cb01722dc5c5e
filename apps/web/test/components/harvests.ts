import type { HarvestDetail, HarvestSite } from '@upper-field/contract'
import { jobOf } from './jobs'

export const HARVEST_ID = '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11'
export const SITE = 'larch.example'
/** A site of which all pages are read. */
export const STATE: HarvestSite = {
  site: SITE,
  state: 'open',
  problem: null,
  delay: 1,
  country: 'GB',
  pages: 2,
  read: 2,
  waiting: 0,
  interrupted: 0,
  numbers: 2,
  emails: 1,
  toLookAt: 0,
}
/** Of which one of four sites is read. */
export const HARVEST: HarvestDetail = {
  id: HARVEST_ID,
  listId: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  name: 'Pages',
  follow: 'contact',
  pagesPerSite: 6,
  country: null,
  jobId: jobOf().id,
  batchId: null,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  sites: 4,
  sitesRead: 1,
  pages: 12,
  pagesRead: 3,
  businesses: 1,
  numbers: 2,
  emails: 1,
  toLookAt: 1,
  ofSites: [STATE, { ...STATE, site: 'heron.example', state: 'waiting', numbers: 0 }],
}
