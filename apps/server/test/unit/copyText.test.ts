import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type CopyLine, copyText } from '../../src/db/copyText'

/** What PostgreSQL reads, by its manual: columns by tabs, lines by newlines, `\N` for nothing, a backslash before what is meant. */
const readBack = (bytes: Buffer): (string | null)[][] =>
  bytes
    .toString('utf8')
    .split('\n')
    .slice(0, -1)
    .map((line) => line.split('\t').map((column) => (column === '\\N' ? null : unescaped(column))))

const MEANT: Readonly<Record<string, string>> = { n: '\n', t: '\t', r: '\r' }
const unescaped = (column: string): string => column.replace(/\\(.)/g, (_, sign: string) => MEANT[sign] ?? sign)

/** Texts in which the signs of COPY's own are as frequent as any other. */
const anyText = fc.string({ unit: fc.constantFrom('a', 'é', '漢', '😀', '\\', '\t', '\n', '\r', 'N', '.', '"', ' ') })
const anyLine = fc.array(fc.option(anyText), { minLength: 3, maxLength: 3 })

describe('copyText', () => {
  it('writes texts so that PostgreSQL reads what they were', () => {
    fc.assert(fc.property(fc.array(anyLine), (lines) => expect(readBack(copyText(lines))).toEqual(lines)))
  })

  it.each<[string, CopyLine, string]>([
    ['numbers', [0, -7, 1_234_567_890_123], '0\t-7\t1234567890123'],
    ['yes and no', [true, false], 't\tf'],
    ['nothing, and a text that says nothing', [null, '', '\\N'], '\\N\t\t\\\\N'],
    ['bytes', [Buffer.from([0, 9, 92, 255])], '\\\\x00095cff'],
    ['several texts in one', [['a,b', 'c"d', 'e\\f', '']], '{"a,b","c\\\\"d","e\\\\\\\\f",""}'],
    ['none in one', [[]], '{}'],
  ])('writes %s', (_, line, written) => expect(copyText([line]).toString()).toBe(`${written}\n`))

  it('writes nothing of no lines', () => expect(copyText([])).toHaveLength(0))

  it('takes lines longer than there was room for, of letters of any width', () => {
    const lines = ['x', 'é', '漢'].map((letter) => [letter.repeat(700_000), letter])
    expect(readBack(copyText(lines))).toEqual(lines)
  })

  it('gives bytes that later lines do not touch, and that may be handed over', () => {
    const first = copyText([['first']])
    copyText([['later']])
    expect(first.toString()).toBe('first\n')
    expect(first.buffer.byteLength).toBe(first.byteLength)
  })
})
