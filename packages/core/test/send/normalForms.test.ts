import { createHash } from 'node:crypto'
import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { NORMAL_STEPS, normalForm, whyNoStep } from '../../src/send'

/** Value, form, country, what it becomes, and the SHA-256 of its bytes: made with another language's library. */
const VECTORS: readonly [string, readonly string[], string | null, string, string][] = [
  [
    ' \u00a0M\u00fcller\u200b\ufeff ',
    ['trim', 'compose', 'lower'],
    null,
    'm\u00fcller',
    '2dbd218072117713f2d5996a726a9b216ed791ffd0783b6ba4ab6d61b8333192',
  ],
  [
    'Mu\u0308ller',
    ['compose'],
    null,
    'M\u00fcller',
    'a78429899bb825ce667d25d92e2cde488f8a7d6871bb2be7365601cad6b0a8f2',
  ],
  [
    '\u0141\u00d3D\u0179 \u00d8rsted \u00c6ther \u0152uvre \u0110or\u0111e \u0131ss\u0131z stra\u00dfe',
    ['ascii'],
    null,
    'LODZ Orsted AEther OEuvre Dorde issiz strasse',
    'f3cbe13ca0bb6c5e4ec577086d48d674915dd2210264a015ec60e0e45cbd70a9',
  ],
  [
    'Maren+news@Heron.Example',
    ['lower', 'no-tag'],
    null,
    'maren@heron.example',
    '18666e4a245e9a3f6c6ed5319d6ed48edb7a6a4885a50466e7d153a6efadf9eb',
  ],
  ['07911 204481', ['e164'], 'GB', '+447911204481', '8f4dbc3c97f690bc85b85ad982567dfa9f9aef13c2d3bcc73e9e48bb0a2c596c'],
  [
    '07911 204481',
    ['e164', 'digits'],
    'GB',
    '447911204481',
    '27e0ddff725dcc1622d7e25a2ce35c6740e0caa09a56360a6c5eeee431afd257',
  ],
  ['not a number', ['e164'], 'GB', '', ''],
  [
    "O'Brien-Smith, Jr. \u20ac5",
    ['no-punctuation', 'one-space'],
    null,
    'OBrienSmith Jr 5',
    '6d4c5efbd32ba38f249bd2347ae488565071816d2dffe61b48c4e461222fa2a0',
  ],
  [
    'NE69  7BP',
    ['no-space', 'lower'],
    null,
    'ne697bp',
    '0fa34ced67dfb1b4f840642599c6d256f5b4129fba0e616fdb185106567f4636',
  ],
  ['United Kingdom', ['country'], null, 'GB', 'b4043b0b8297e379bc559ab33b6ae9c7a9b4ef6519d3baee53270f0c0dd3d960'],
  ['Deutschland', ['country', 'lower'], null, 'de', '959a45d44e6fcf58361ed004681556fe50129f2109e817dec098c00c9e5d2578'],
  ['Wrenfold', ['first:1', 'lower'], null, 'w', '50e721e49c013f00c62cf59f2163542a9d8df02464efeb615d31051b0fddc326'],
  [
    '\ud83c\udf3f\ud83c\udf3fleaf',
    ['first:2'],
    null,
    '\ud83c\udf3f\ud83c\udf3f',
    '38c7b632e1ba470bd9c7010e08e28bddbc6a41377bfe4e14ebeab9614e5cdbcb',
  ],
  [
    '1980-03-07',
    ['date:YYYYMMDD'],
    null,
    '19800307',
    '59301823abd8536b7eb3291d91d11ab77beafb36b382c89dc15d9e27a90a8045',
  ],
  [
    '7.3.1980',
    ['date:YYYY-MM-DD'],
    'DE',
    '1980-03-07',
    'f26861bc9c0d3ad012691f0a2f89552aa07833e4bf22585c47e1bce10d7e759a',
  ],
  [
    '03/07/1980',
    ['date:YYYYMMDD'],
    'US',
    '19800307',
    '59301823abd8536b7eb3291d91d11ab77beafb36b382c89dc15d9e27a90a8045',
  ],
  ['31/02/1980', ['date:YYYYMMDD'], 'GB', '', ''],
  [
    'https://www.Heron.Example/rooms?x=1',
    ['host'],
    null,
    'heron.example',
    'e7a8ed9981db578874e95fa9c89189e428e12658b5256fe18c652a4ec184a37f',
  ],
  [
    '\u0660\u0661\u0662\u0663 \u096b',
    ['digits'],
    null,
    '01235',
    '1c02b66d4c9b40f0add38a4bf8359f28830bad21bc3ddb4b6e834988aadbce73',
  ],
  [
    '  a \t b\u00a0\u00a0c ',
    ['one-space'],
    null,
    ' a b c ',
    '21ddd8484ea4c9a7eb6ad01896156e9ab8a04f222b0d1caedc561a611812d38e',
  ],
  [
    '\u01fcgir M\u01ff\u00f8ller Aeg\u00e6\u0301s',
    ['ascii'],
    null,
    'AEgir Mooller Aegaes',
    'c885c360cbaf649d74360bb0f93df0b2d65f829ef5585afe6ec3811b0c9bcc64',
  ],
  ['', ['trim', 'lower'], null, '', ''],
  ['\u200b ', ['trim'], null, '', ''],
]

const sha256 = (text: string) => (text === '' ? '' : createHash('sha256').update(text, 'utf8').digest('hex'))

describe('a normal form', () => {
  it.each(VECTORS)('of %j by %j in %p is %j', (value, form, country, normal, digest) => {
    const formed = normalForm(value, form, { country })
    expect(formed).toBe(normal)
    expect(sha256(formed)).toBe(digest)
  })

  it.each(['first:0', 'first:', 'first:x', 'date:', 'date:HH', 'Lower', '', 'constructor', 'toString'])(
    'has no step %j, and says which there are',
    (step) => {
      expect(whyNoStep(step)).toEqual(expect.any(String))
      expect(() => normalForm('x', [step])).toThrow(/step|first|date/)
    },
  )

  const step = fc.oneof(fc.constantFrom(...NORMAL_STEPS), fc.constantFrom('first:3', 'date:YYYYMMDD'))
  it('leaves blank what is blank, whatever the steps', () =>
    fc.assert(fc.property(fc.array(step), (form) => normalForm('', form) === '')))

  it.each([...NORMAL_STEPS].filter((name) => name !== 'no-tag' && name !== 'digits'))(
    'by %s twice is what it is once',
    (name) =>
      fc.assert(
        fc.property(fc.string({ unit: 'grapheme' }), (value) => {
          const once = normalForm(value, [name], { country: 'GB' })
          expect(normalForm(once, [name], { country: 'GB' })).toBe(once)
        }),
      ),
  )

  it('keeps so many whole characters', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.integer({ min: 1, max: 20 }), (value, n) => {
        const kept = normalForm(value, [`first:${n}`])
        expect([...kept].length).toBeLessThanOrEqual(n)
        expect(value.startsWith(kept)).toBe(true)
      }),
    ))

  it('without space holds none of it, and without punctuation none of that', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (value) => {
        expect(normalForm(value, ['no-space'])).not.toMatch(/[\s\u200B-\u200D\u2060\uFEFF]/u)
        expect(normalForm(value, ['no-punctuation'])).not.toMatch(/[\p{P}\p{S}]/u)
        expect(normalForm(value, ['digits'])).toMatch(/^\d*$/)
      }),
    ))
})
