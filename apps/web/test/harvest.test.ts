import { describe, expect, it } from '@jest/globals'
import type { HarvestPlan, HarvestSite, SiteFinding } from '@upper-field/contract'
import { columnOfAddresses } from '../src/harvest/columnOfAddresses'
import {
  formatText,
  howOf,
  leftOutText,
  planText,
  problemOf,
  siteLine,
  sureOf,
  unreadText,
} from '../src/harvest/harvestText'
import { blocksShown, segmentsOf } from '../src/harvest/marks'

const site = (more: Partial<HarvestSite> = {}): HarvestSite => ({
  site: 'larch.example',
  state: 'open',
  problem: null,
  delay: 1,
  country: null,
  pages: 3,
  read: 3,
  waiting: 0,
  interrupted: 0,
  numbers: 1,
  emails: 0,
  toLookAt: 0,
  ...more,
})

describe('the line under a site', () => {
  it.each<[Partial<HarvestSite>, string, string]>([
    [{ state: 'forbidden' }, 'robots.txt forbids it', 'look'],
    [{ state: 'unreachable', problem: 'no-such-name' }, 'the name does not resolve', 'bad'],
    [{ state: 'waiting' }, 'waiting', 'plain'],
    [{ interrupted: 1 }, '1 page cut off', 'bad'],
    [{ toLookAt: 2 }, '2 values to look at', 'look'],
    [{ waiting: 2, read: 1 }, '1 of 3 pages', 'plain'],
    [{ delay: 20 }, '3 pages read · 20 s between pages', 'plain'],
    [{ read: 0 }, '0 pages read', 'bad'],
    [{ read: 0, problem: 'too-large' }, 'larger than a page may be', 'bad'],
  ])('of %j is “%s”', (more, text, tone) => expect(siteLine(site(more))).toEqual({ text, tone }))
})

describe('a text with what was found in it', () => {
  const findings = [{ raw: '0241 557 825' }, { raw: 'hello@larch.example' }]
  it('is cut at every finding and at everything left out, and nothing of it is lost', () => {
    const text = 'Tel 0241 557 825, Fax 0241 557 826, hello@larch.example, again 0241 557 825.'
    const segments = segmentsOf(text, findings, [{ raw: '0241 557 826' }])
    expect(segments.map((one) => one.text).join('')).toBe(text)
    expect(segments.flatMap(({ finding }) => finding ?? [])).toEqual([0, 1, 0])
    expect(segments.flatMap(({ isLeftOut, text: left }) => (isLeftOut ? [left] : []))).toEqual(['0241 557 826'])
  })

  it('shows what stands in another as that other', () => {
    const segments = segmentsOf('0241 557 825', findings, [{ raw: '557 825' }])
    expect(segments).toEqual([{ text: '0241 557 825', finding: 0, isLeftOut: false }])
    expect(segmentsOf('nothing', findings, [{ raw: '' }])).toEqual([
      { text: 'nothing', finding: null, isLeftOut: false },
    ])
  })

  it('shows the blocks around a finding first', () => {
    const blocks = blocksShown(['far', 'near', 'Tel 0241 557 825', 'near too', 'far'], findings, [])
    expect(blocks.map(({ isNear }) => isNear)).toEqual([false, true, true, true, false])
  })
})

const finding = (more: Partial<SiteFinding>): SiteFinding => ({
  kind: 'number',
  value: '+33241557825',
  corrected: null,
  state: 'taken',
  decidedBy: null,
  confidence: 0.9,
  how: ['label'],
  raw: '',
  quote: '',
  pages: [],
  ...more,
})

describe('words of findings', () => {
  it.each<[Partial<SiteFinding>, string]>([
    [{}, 'sure'],
    [{ confidence: 0.6 }, 'likely'],
    [{ confidence: 0.3, state: 'look' }, 'look at it'],
    [{ decidedBy: 'Maren' }, 'confirmed'],
    [{ decidedBy: 'Maren', state: 'dropped' }, 'dropped'],
  ])('%j is %s', (more, words) => expect(sureOf(finding(more))).toBe(words))

  it('tell how it was found, what was left out, and why a page was not read', () => {
    expect(howOf(['link', 'table'])).toBe('a link to dial or write to, a table')
    expect(
      leftOutText([
        { raw: '1', why: 'fax' },
        { raw: '2', why: 'tax' },
        { raw: '3', why: 'tax' },
      ]),
    ).toBe('1 fax line, 2 tax numbers')
    expect(problemOf('certificate')).toBe('its certificate is not valid')
    expect(problemOf(null)).toBe('')
  })
})

it('a format is told in words', () => {
  const groups = [
    { least: 4, most: 6, behind: ' ' },
    { least: 3, most: 3, behind: '/' },
    { least: 1, most: 3, behind: '' },
  ]
  const format = {
    name: 'x',
    takes: true,
    country: 'AT',
    startsWithPlus: false,
    groups,
    after: ['nummer'],
    notAfter: [],
  }
  expect(formatText({ format })).toBe(
    'Numbers of Austria: 4 to 6 digits, a space, 3 digits, a slash, 1 to 3 digits; behind “nummer”',
  )
  expect(formatText({ format: { ...format, takes: false, country: null, notAfter: ['artikel'] } })).toMatch(
    /^No numbers: .*; not behind “artikel”$/,
  )
})

const plan = (more: Partial<HarvestPlan> = {}): HarvestPlan => ({
  addresses: 12,
  sites: 10,
  unread: [],
  unreadCount: 0,
  repeated: 0,
  asked: 10,
  forbidden: [],
  unreachable: [],
  slow: [],
  beyond: 0,
  mostPages: 72,
  mostSeconds: 130,
  mostBytes: 144_000_000,
  ...more,
})

describe('what a harvest comes to', () => {
  it('is said in sentences, and nothing that is not so', () => {
    expect(planText(plan())).toEqual([
      '12 addresses at 10 sites; at most 72 pages, 2 min and 144.0 MB.',
      'Every site was asked for its rules.',
    ])
    const told = planText(
      plan({
        asked: 4,
        forbidden: ['a', 'b', 'c', 'd', 'e', 'f'],
        unreachable: ['z'],
        slow: [{ site: 's', seconds: 9 }],
        repeated: 1,
        beyond: 2,
      }),
    )
    expect(told).toContain('robots.txt forbids 6 sites: a, b, c, d and 2 more.')
    expect(told).toContain('2 more sites of these contacts are left for another time: filter them to read those.')
    expect(told).toContain('Asked to wait longer between pages: s (9 s).')
    expect(told).toContain('1 address stood there more than once.')
    expect(unreadText({ line: 3, text: 'ftp://x', why: 'scheme' })).toBe('Line 3: “ftp://x” is neither http nor https.')
  })
})

describe('the column of addresses in a file', () => {
  it.each([
    [[['Inn', 'a@b.example', 'www.inn.example']], 2],
    [
      [
        ['heron.example', 'x'],
        ['x', 'https://heron.example/'],
        ['y', 'http://larch.example'],
      ],
      1,
    ],
    [[['Inn', 'Kelso']], null],
    [[], null],
  ])('of %j is %s', (rows, column) => expect(columnOfAddresses(rows)).toBe(column))
})
