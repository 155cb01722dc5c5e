import type { HarvestSite } from '@upper-field/contract'

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
