import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { readPhoneCell } from '../../src/phone'
import { type Case, shown } from './shown'

describe('remarks are taken off and kept', () => {
  it.each<Case>([
    ['07911 204481 (call after 5)', 'GB', '+447911204481 “call after 5”'],
    ['ask for Jim 07911 204481', 'GB', '+447911204481 “ask for Jim”'],
    ['nur abends 0171 5550914', 'DE', '+491715550914 “nur abends”'],
    ['0171 5550914 (Frau Anders)', 'DE', '+491715550914 “Frau Anders”'],
    ['0171 5550914 Mo-Fr 9-17 Uhr', 'DE', '+491715550914 “Mo-Fr 9-17 Uhr”'],
    ['06 12 55 09 18 - le soir uniquement', 'FR', '+33612550918 “le soir uniquement”'],
    ['01665 555018 do not call before 10', 'GB', '+441665555018 “do not call before 10”'],
    ['new! 07911 204481', 'GB', '+447911204481 “new”'],
    ['07911 204481 tried 2x', 'GB', '+447911204481 “tried 2x”'],
    ['Sarah: 07911 204481', 'GB', '+447911204481 “Sarah”'],
    ['0912 345 678 mẹ nghe máy', 'VN', '+84912345678 “mẹ nghe máy”'],
    ['только вечером 8 912 345-67-89', 'RU', '+79123456789 “только вечером”'],
    ['090-1234-5670 夜のみ', 'JP', '+819012345670 “夜のみ”'],
  ])('%j in %s', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  it.each<Case>([
    ['612 345 678 llamar tarde', 'ES', '+34612345678 “llamar tarde”'],
    ['ring efter kl. 17 20 12 34 56', 'DK', '+4520123456 “ring efter kl. 17”'],
    ['Kari 412 34 567', 'NO', '+4741234567 “Kari”'],
    ['601 234 567 po 16', 'PL', '+48601234567 “po 16”'],
    ['(415) 555-2671 best time 9-5', 'US', '+14155552671 “best time 9-5”'],
    ['9123 4567 (Mr Tan)', 'SG', '+6591234567 “Mr Tan”'],
  ])('%j in %s, whose plan has no zero', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  it.each<Case>([
    ['0664 anna', 'AT', 'unreadable ! no-digits “0664 anna”'],
    ['room 4315552', 'DE', 'unreadable ! reference-number “room”'],
    ['abc123456789', 'US', 'unreadable ! no-digits “abc123456789”'],
    ['customer 20931774', 'GB', 'unreadable ! not-in-plan “customer”'],
  ])('%j in %s is no number because of them', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  const words = fc.array(
    fc.constantFrom('after', 'only', 'Jim', 'abends', 'soir', 'new', 'boss', 'Frau', 'vero', 'kesällä', 'дома', 'ok'),
    { minLength: 1, maxLength: 4 },
  )
  const numbers = fc.constantFrom(
    ['07911 204481', 'GB', '+447911204481'],
    ['+33 6 12 55 09 18', 'DE', '+33612550918'],
    ['612 345 678', 'ES', '+34612345678'],
    ['(415) 555-2671', 'US', '+14155552671'],
    ['0171 5550914', 'DE', '+491715550914'],
  )

  it('whatever they are, before and behind the number', () => {
    fc.assert(
      fc.property(words, numbers, fc.boolean(), (said, [number = '', country, e164], isBefore) => {
        const remark = said.join(' ')
        const reading = readPhoneCell(isBefore ? `${remark} ${number}` : `${number} ${remark}`, { country })
        expect(reading.numbers.map((one) => one.e164)).toEqual([e164])
        for (const word of said) if (!LABELS.has(word)) expect(reading.remark).toContain(word)
      }),
    )
  })
})

/** A label is kept as the number's. */
const LABELS = new Set(['дома'])

describe('letters are keys only in a word of the number', () => {
  it.each<Case>([
    ['0800 GARTEN1', 'DE', '+498004278361'],
    ['1-800-FLOWERS', 'US', '+18003569377'],
    ['1-800-GARDENINGS', 'US', '+18004273364'],
    ['212-MY-HOUSE', 'US', '+12126946873'],
    ['0800 PLUMBER', 'GB', '+448007586237'],
    ['1300 GARDEN', 'AU', '+611300427336'],
  ])('%j in %s', (raw, country, expected) => {
    expect(shown(raw, country)).toBe(expected)
    expect(readPhoneCell(raw, { country }).repairs).toContain('keypad-letters')
  })

  it.each([
    ['07911 204481 office', 'GB'],
    ['0171 5550914 CHEF', 'DE'],
    ['415 555 2671 HOME', 'US'],
  ])('%j in %s has a number without them', (raw, country) =>
    expect(readPhoneCell(raw, { country }).repairs).not.toContain('keypad-letters'),
  )
})
