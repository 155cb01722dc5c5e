import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from '@jest/globals'
import { ANSWER_FIELDS, CHARGED_PER, GIVES, INPUT_SETS, REQUEST_NAMES } from '@upper-field/core/connect'
import { z } from 'zod'
import { ConnectorDocument } from '../src'

const ROOT = join(import.meta.dirname, '..', '..', '..')
const shippedIn = (folder: string) =>
  readdirSync(join(ROOT, 'apps', 'server', folder)).map((name) =>
    JSON.parse(readFileSync(join(ROOT, 'apps', 'server', folder, name), 'utf8')),
  )
const shipped = shippedIn('connectors')

const service = (changes: Record<string, unknown> = {}) => ({
  format: 1,
  id: 'made-up',
  name: 'Made up',
  gives: ['mobile'],
  accepts: ['profile'],
  address: 'https://api.made-up.example',
  key: { in: 'header', name: 'x-key', value: '{{ key }}' },
  one: {
    call: { method: 'POST', path: '/find', body: '{"profile": {{ profile }}}' },
    answers: { how: 'at-once' },
    items: '$.found[*]',
  },
  fields: { number: '$.tel' },
  charge: { per: 'call', euros: 0.1 },
  ...changes,
})
const problemsOf = (changes: Record<string, unknown>): string => {
  const { error } = ConnectorDocument.safeParse(service(changes))
  return error ? z.prettifyError(error) : ''
}

describe('a connector', () => {
  it('is ten times shipped, and says what it leaves out', () => {
    const read = shipped.map((document) => ConnectorDocument.parse(document))
    expect(read).toHaveLength(10)
    expect(new Set(read.flatMap(({ gives }) => gives)).size).toBeGreaterThan(6)
    expect(ConnectorDocument.parse(service())).toMatchObject({ many: null, isPaidFor: false, limit: { atOnce: 8 } })
  })

  it('is read as the page that explains it says, and every word of it stands there', () => {
    const page = readFileSync(join(ROOT, 'docs', 'connectors.md'), 'utf8')
    const [, example = ''] = /```json\n(.*?)```/s.exec(page) ?? []
    expect(ConnectorDocument.parse(JSON.parse(example))).toMatchObject({ id: 'lantern', isPaidFor: false })
    for (const word of [...GIVES, ...INPUT_SETS, ...ANSWER_FIELDS, ...CHARGED_PER, ...REQUEST_NAMES])
      expect([word, page.includes(`\`${word}\``) || page.includes(`{{ ${word} }}`)]).toEqual([word, true])
    for (const part of Object.keys(ConnectorDocument.shape).filter(
      (name) => !['format', 'id', 'name', 'about'].includes(name),
    ))
      expect([part, page.includes(`\`${part}\``)]).toEqual([part, true])
  })

  it.each<[string, Record<string, unknown>, RegExp]>([
    ['a newer format', { format: 2 }, /newer version \(format 2\); this one knows format 1/],
    ['an id with spaces', { id: 'Made Up' }, /small letters/],
    ['an address that is none', { address: 'made-up' }, /begins with https/],
    ['a file for an address', { address: 'file:///etc/passwd' }, /begins with https/],
    ['no place for the key', { key: { in: 'header', name: 'x-key', value: 'Bearer' } }, /\{\{ key \}\}/],
    ['a header of our own', { key: { in: 'header', name: 'Host', value: '{{ key }}' } }, /by the application itself/],
    ['a field that is missing', { fields: {} }, /stands in "number"/],
    [
      'facts asked for by something else',
      { gives: ['line-facts'], fields: { number: '$', lineType: '$', status: '$' } },
      /asked for with "number"/,
    ],
    ['a report that nothing is charged by', { report: { method: 'POST', path: '/taken' } }, /only where it charges/],
    ['a path that is none', { fields: { number: 'tel' } }, /→ at fields.number/],
    ['a word it does not know', { colour: 'green' }, /colour/],
    ['a price below nothing', { charge: { per: 'call', euros: -1 } }, /charge.euros/],
    ['a price of part of a millionth', { charge: { per: 'call', euros: 0.00000001 } }, /charge.euros/],
  ])('with %s is refused with its place', (_, changes, why) => expect(problemsOf(changes)).toMatch(why))

  it.each<[string, Record<string, unknown>, RegExp]>([
    ['quotation marks round a value', { body: '{"name": "{{ name }}"}' }, /no JSON/],
    ['a loop', { body: '{% for a in (1..9) %}1{% endfor %}' }, /for/],
    ['a path to another host', { path: '//elsewhere.example/find' }, /one slash/],
    ['no slash', { path: 'find' }, /one slash/],
  ])('whose call has %s is refused', (_, call, why) =>
    expect(problemsOf({ one: { ...service().one, call: { method: 'POST', path: '/find', ...call } } })).toMatch(why),
  )
})

describe('a directory', () => {
  const [whole] = shipped.filter(({ directory }) => directory) as Record<string, unknown>[]
  const problems = (changes: Record<string, unknown>): string => {
    const { error } = ConnectorDocument.safeParse({ ...whole, ...changes })
    return error ? z.prettifyError(error) : ''
  }

  it('is declared as the page that explains it shows', () => {
    const page = readFileSync(join(ROOT, 'docs', 'connectors.md'), 'utf8')
    const [, directory = ''] = [...page.matchAll(/```json\n(.*?)```/gs)].map(([, json = '']) => json)
    expect(problems({ directory: JSON.parse(directory) })).toBe('')
  })

  it.each<[string, Record<string, unknown>, RegExp]>([
    ['no way to list', { directory: null }, /says how they are listed/],
    ['mobiles too', { gives: ['businesses', 'mobile'] }, /businesses and nothing else/],
    ['a price for what is accepted', { charge: { per: 'accepted', euros: 1 } }, /per call or per record/],
    ['names to ask by', { accepts: ['profile'] }, /asked for with "trade-and-place"/],
    ['no ids', { fields: { name: '$.n', number: '$.t' } }, /stands in "record"/],
  ])('with %s is refused', (_, changes, why) => expect(problems(changes)).toMatch(why))

  it('that answers later is refused, and so is a list of businesses from who gives none', () => {
    const one = { ...(whole?.one as object), answers: { how: 'callback', isSigned: true } }
    expect(problems({ one })).toMatch(/answers at once/)
    expect(problems({ gives: ['mobile'] })).toMatch(/and no other/)
  })
})

describe('code', () => {
  const sources = [
    'packages/core/src',
    'packages/contract/src',
    'packages/files/src',
    'apps/server/src',
    'apps/web/src',
  ]
  const filesIn = (folder: string): string[] =>
    readdirSync(join(ROOT, folder), { withFileTypes: true, recursive: true })
      .filter((entry) => entry.isFile() && /\.(?:ts|tsx|css)$/.test(entry.name))
      .map((entry) => join(entry.parentPath, entry.name))

  it('names no service that is declared', () => {
    const ids = [...shipped, ...shippedIn('destinations')].map(({ id }: { id: string }) => id)
    const names = new RegExp(`\\b(?:${ids.join('|')})\\b`, 'i')
    const files = sources.flatMap(filesIn)
    expect(files.length).toBeGreaterThan(300)
    expect(files.filter((file) => names.test(readFileSync(file, 'utf8')))).toEqual([])
  })
})
