import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { countPiles } from '../../src/contacts/piles'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let listId = ''
const ROWS = [
  'name,company,title,city,phone,mail,country,zip,Seats in all,sex,customer value,Opened',
  'Maren Oldershaw,Causeway Guest House,Head of Procurement,Kelso,07911 204481,maren@causeway.example,GB,NE69 7BP,40,f,"1,200.50",2019-05-01',
  'Jonah Carnridge,Tidewater Inn,Inhaber,Alnwick,,jonah@tidewater.example,GB,,12,m,80,2023-02-11',
  'Ilse Krug,Heron GmbH,Einkaufsleiterin,Köln,+49 30 55577012,,DE,,about 30,,,',
  'Agathe Roche,Vertefeuille,Gérante,Lyon,,,FR,69001,"1 200,5",weiblich,,',
  'Tom Kestle,House of Guests,Buyer,Kelso,07911 204482,,GB,,,,,',
]

beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  await bringText(server.api, listId, ROWS.join('\n'), { gatheredOn: '2026-05-03' })
})
afterAll(() => server.stop())

async function chosen(filter: string): Promise<string> {
  const page = await server.api.call('readContacts', { params: { listId }, query: { filter } })
  const piles = await server.api.call('readPiles', { params: { listId }, query: { filter } })
  const inLanes = Object.values(piles.lane).reduce((sum, n) => sum + n, 0)
  // Facets count exactly whom the page shows; a lane of the filter itself does not narrow its own counts.
  if (!/lane:/.test(filter)) expect([filter, inLanes]).toEqual([filter, page.total])
  return page.contacts.map(({ fullName }) => fullName.split(' ')[0]).join(' ')
}

describe('a filter', () => {
  it.each([
    ['company:inn', 'Jonah'],
    ['"guest house"', 'Maren'],
    ['guest house', 'Maren Tom'],
    // Two letters begin a word: not those in cHERon, VERTEfeuille or OlderSHaw.
    ['he', 'Ilse'],
    ['ho', 'Maren Tom'],
    ['sh', ''],
    ['ve roche', 'Agathe'],
    ['Ma or ho', 'Maren Tom'],
    ['11', 'Maren Jonah Tom'],
    ['city=kelso', 'Maren Tom'],
    ['city:koln or city:lyon', 'Agathe'],
    ['missing:number', 'Jonah Agathe'],
    ['missing:number,email', 'Agathe'],
    ['has:postal', 'Maren Agathe'],
    ['function:purchasing', 'Maren Ilse Tom'],
    ['function:purchasing level:head', 'Maren Ilse'],
    ['level:owner,executive', 'Jonah Agathe'],
    ['not country:GB', 'Ilse Agathe'],
    ['country:GB not city:kelso', 'Jonah'],
    ['(country:DE or country:FR) not level:head', 'Agathe'],
    ['country!=GB', 'Ilse Agathe'],
    ['lane:text or (lane:call country:DE)', 'Maren Ilse Tom'],
    ['seats-in-all>20', 'Maren Agathe'],
    ['seats-in-all:10..50', 'Maren Jonah'],
    ['seats-in-all=12', 'Jonah'],
    ['seats-in-all!=12', 'Maren Ilse Agathe Tom'],
    ['seats-in-all:about', 'Ilse'],
    ['missing:seats-in-all', 'Tom'],
    ['has:seats-in-all not seats-in-all<20', 'Maren Ilse Agathe'],
    ['opened>2020', 'Jonah'],
    ['gender=female', 'Maren Agathe'],
    ['value>100', 'Maren'],
    ['has:value missing:gender', ''],
    ['audience!=anywhere', 'Maren Jonah Ilse Agathe Tom'],
    ["seats-in-all:'||'", ''],
    ['cost>0', ''],
    ['cost:0..1', 'Maren Jonah Ilse Agathe Tom'],
    ['joined>0', ''],
    ['gathered:2026-05', 'Maren Jonah Ilse Agathe Tom'],
    ['gathered>2026-05-03', ''],
    ['gathered:2026-05-01..2026-05-31', 'Maren Jonah Ilse Agathe Tom'],
    ['gathered:..2026-04', ''],
    ['added>2020', 'Maren Jonah Ilse Agathe Tom'],
    ['asked:anybody', ''],
    ['sent!=anywhere', 'Maren Jonah Ilse Agathe Tom'],
    ["company:'; drop table contacts; --", ''],
    ['company:%', ''],
    ['not (oldershaw or kestle)', 'Jonah Ilse Agathe'],
  ])('%s', async (filter, names) => expect(await chosen(filter)).toBe(names))

  it('of more conditions than anybody follows is refused', async () => {
    const many = Array.from({ length: 60 }, (_, i) => `city:x${i}`).join(' or ')
    await expect(chosen(many)).rejects.toMatchObject({ code: 'too-many-conditions' })
  })
})

describe('columns that became no field', () => {
  it('are told by the names they are filtered by', async () => {
    const columns = await server.api.call('readColumns', { params: { listId } })
    expect(columns).toEqual([
      { key: 'seats-in-all', heading: 'Seats in all' },
      { key: 'opened', heading: 'Opened' },
      // Made by the routine, for somebody.
      { key: 'legal-form', heading: 'Legal form' },
    ])
  })

  it('that are not there are no part of a filter that is kept, and the nearest is told', async () => {
    const keep = (filter: string) =>
      server.api.call('keepSegment', { params: { listId }, body: { name: 'Large', filter } })
    await expect(keep('seats-in-al>20')).rejects.toMatchObject({
      code: 'filter-unread',
      message: expect.stringContaining('“seats-in-all”'),
    })
    expect(await keep('seats-in-all>20')).toMatchObject({ contacts: 2 })
  })
})

describe('an estimate', () => {
  const ABOVE = { above: 1000, size: 400 }
  const counts = async (listId: string, filter: string) => {
    const { db } = server.services
    const exact = await countPiles(db, listId, filter)
    const estimate = await countPiles(db, listId, filter, ABOVE)
    return { exact, estimate }
  }
  let large = ''
  beforeAll(async () => {
    large = await newList(server.api, 'Large')
    const countries = ['GB', 'DE', 'FR', 'NL']
    const line = (i: number) =>
      `Given${i} Family${i},${i % 5 === 0 ? 'Lodge' : 'Inn'},person${i}@postbox.example,${countries[i % 4]}`
    const text = ['name,company,mail,country', ...Array.from({ length: 2000 }, (_, i) => line(i))].join('\n')
    await bringText(server.api, large, text)
  })

  it.each(['company:lodge', 'company:inn not country:GB', 'lodge'])('of %s is near what is true', async (filter) => {
    const { exact, estimate } = await counts(large, filter)
    expect([exact.isEstimate, estimate.isEstimate]).toEqual([false, true])
    for (const [country, n] of Object.entries(exact.country)) {
      expect(estimate.country[country]).toBeGreaterThan(n * 0.6)
      expect(estimate.country[country]).toBeLessThan(n * 1.4)
    }
  })

  it('is not made where the counts of the list tell all, nor of a small list', async () => {
    const known = await counts(large, 'country:GB or (country:DE not line:mobile)')
    expect(known.estimate).toEqual(known.exact)
    const small = await counts(listId, 'company:inn')
    expect(small.estimate).toEqual(small.exact)
  })
})
