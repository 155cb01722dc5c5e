import { describe, expect, it } from '@jest/globals'
import { kindOfSharedLine } from '@upper-field/core/pair'

const holder = (familyName: string, company = '', domain = '') => ({ familyName, company, domain })

describe('kindOfSharedLine', () => {
  it.each([
    ['colleagues at one desk', 'fixed', [holder('Kestle', 'Fernhill'), holder('Garside', 'FERNHILL')], 'switchboard'],
    [
      'colleagues under two spellings and one site',
      'fixed',
      [holder('Kestle', 'Fernhill', 'fernhill.example'), holder('Garside', 'Fernhill Lodge', 'fernhill.example')],
      'switchboard',
    ],
    ['relatives of one company on a mobile', 'mobile', [holder('Holt', 'Heron'), holder('Holt', 'Heron')], 'household'],
    ['relatives', 'fixed', [holder('Müller'), holder('Mueller')], 'household'],
    ['strangers', 'fixed', [holder('Holt', 'Heron'), holder('Kestle', 'Fernhill')], 'several-people'],
    ['people of whom nothing is known', 'fixed', [holder(''), holder('')], 'several-people'],
    ['one who is known among others who are not', 'fixed', [holder('', 'Heron'), holder('')], 'several-people'],
  ] as const)('knows %s', (_, lineType, holders, kind) => {
    expect(kindOfSharedLine(lineType, holders)).toBe(kind)
  })
})
