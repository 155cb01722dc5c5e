/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { HarvestSite, SiteFinding } from '@upper-field/contract'
import { HarvestView } from '../../src/harvest/HarvestView'
import { HARVEST, HARVEST_ID, STATE } from './harvests'
import { listOf } from './lists'
import { OPERATOR, rendered } from './rendered'

const site = (name: string, toLookAt: number, numbers: number): HarvestSite => ({
  ...STATE,
  site: name,
  toLookAt,
  numbers,
  emails: 0,
})

const FOUND: SiteFinding = {
  kind: 'number',
  value: '+441665555018',
  corrected: null,
  state: 'look',
  decidedBy: null,
  confidence: 0.4,
  how: ['label'],
  raw: '01665 555018',
  quote: 'Telephone 01665 555018',
  pages: [],
}

function view(first: readonly HarvestSite[]) {
  let ofSites = first
  const shown = rendered(
    <HarvestView />,
    {
      readHarvest: () => ({ ...HARVEST, ofSites: [...ofSites] }),
      readMe: OPERATOR,
      readJobs: [],
      readFormats: [],
      readHarvestedSite: ({ search }) => ({
        site: search.get('site') ?? '',
        business: null,
        pages: [],
        findings: [FOUND],
      }),
      decideFinding: {},
    },
    '',
    { list: listOf(), path: '/bring/pages/:harvestId', end: `/bring/pages/${HARVEST_ID}` },
  )
  /** Decides something, after which the sites are these. */
  const decide = async (later: readonly HarvestSite[]) => {
    await screen.findByRole('row', { selected: true })
    ofSites = later
    await shown.user.keyboard('x')
    await screen.findByRole('button', { name: new RegExp(`^${later[0]?.site} ?2`) })
  }
  return { ...shown, decide }
}
const inSight = () => screen.getByRole('heading', { level: 1 }).textContent

describe('pages that are looked at', () => {
  it('begin with a site that has something to look at, and stay there when nothing is left', async () => {
    const { decide } = view([site('heron.example', 0, 1), site('larch.example', 1, 0)])
    await waitFor(() => expect(inSight()).toBe('larch.example'))
    await decide([site('heron.example', 2, 2), site('larch.example', 0, 0)])
    expect(inSight()).toBe('larch.example')
  })

  it('follow to where something is found as long as nothing is to be seen', async () => {
    const { decide } = view([site('heron.example', 0, 0), site('larch.example', 0, 0)])
    await waitFor(() => expect(inSight()).toBe('heron.example'))
    await decide([site('heron.example', 0, 2), site('larch.example', 3, 0)])
    await waitFor(() => expect(inSight()).toBe('larch.example'))
  })

  it('are gone through by what is left to look at', async () => {
    const { user } = view([site('heron.example', 1, 1), site('ivy.example', 0, 1), site('larch.example', 1, 0)])
    await waitFor(() => expect(inSight()).toBe('heron.example'))
    await user.keyboard('n')
    await waitFor(() => expect(inSight()).toBe('larch.example'))
    await user.keyboard('n')
    await waitFor(() => expect(inSight()).toBe('heron.example'))
  })
})
