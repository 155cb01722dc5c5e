import { describe, expect, it } from '@jest/globals'
import type { RegisterFacts } from '@upper-field/core/check'
import { AS_THEY_COME } from '@upper-field/core/pair'
import { projectRow } from '@upper-field/core/tidy'
import { type ContactSources, viewOf } from '../../src/projection/viewOf'

let nextId = 1
const row = (...cells: string[]) => ({
  id: nextId++,
  projected: projectRow(cells, { mapping: ['full-name', 'number', 'number', 'email'], defaultCountry: 'GB' }),
})
const MOBILE = '+447911204481'
const FIXED = '+441665555018'
const told = (facts: Record<string, Partial<RegisterFacts>>) => (e164: string) =>
  facts[e164] ? { lineType: null, status: null, checkedAt: 1, ...facts[e164] } : undefined
function view(own: ContactSources['own'], more: Partial<ContactSources> = {}) {
  const seen = viewOf({
    own,
    members: [],
    how: AS_THEY_COME,
    fills: [],
    factsOf: () => undefined,
    verifiedAs: () => undefined,
    isShared: () => false,
    scopesOf: null,
    ...more,
  })
  return { ...seen, ...seen.standing, ...seen.standing.placed }
}

describe('viewOf', () => {
  it('takes the mobile for the best number, and the cell it came from', () => {
    const seen = view(row('Maren', '01665 555018', 'Mob: 07911 204481', ''))
    expect(seen.best).toMatchObject({ e164: MOBILE, lineType: 'mobile', knownFrom: 'plan' })
    expect(seen.cell).toMatchObject({ column: 2, reading: { verdict: 'repaired' } })
    expect(seen).toMatchObject({ isReadable: true, isDead: false, isFilled: false, wantsMobile: false })
  })

  it('takes another when the register calls the mobile dead', () => {
    const seen = view(row('Maren', '01665 555018', '07911 204481', ''), {
      factsOf: told({ [MOBILE]: { lineType: 'mobile', status: 'out-of-service' } }),
    })
    expect(seen.best?.e164).toBe(FIXED)
    expect(seen).toMatchObject({ isDead: false, wantsMobile: true, placement: { lane: 'call' } })
  })

  it('is dead when every line is, unless there is an e-mail', () => {
    const factsOf = told({ [MOBILE]: { lineType: 'mobile', status: 'out-of-service' } })
    expect(view(row('Maren', '', '07911 204481', ''), { factsOf })).toMatchObject({
      isDead: true,
      placement: { lane: 'parked', reason: 'out-of-service' },
    })
    expect(view(row('Maren', '', '07911 204481', 'm@causeway.example'), { factsOf })).toMatchObject({
      isDead: false,
      placement: { lane: 'ads-only' },
    })
  })

  it('is reached again by a filled value, where the row alone would not do', () => {
    const seen = view(row('Maren', '', '', ''), { fills: [MOBILE] })
    expect(seen).toMatchObject({ isReadable: false, isFilled: true, wantsMobile: false, placement: { lane: 'text' } })
    expect(seen.numbers).toMatchObject([{ e164: MOBILE, origin: 'fill' }])
    expect(view(row('Maren', '01665 555018', '', ''), { fills: [MOBILE] }).isFilled).toBe(false)
    // An address that was found reaches too, and makes no row readable that was not.
    const byMail = view(row('Maren', '', '', ''), { fills: ['maren@causeway.example'] })
    expect(byMail).toMatchObject({ isReadable: false, isFilled: true, placement: { lane: 'ads-only' } })
    expect(byMail.emails).toMatchObject([{ address: 'maren@causeway.example', kind: 'work' }])
  })

  it('puts an address that takes mail before one that does not, and says how sure the contact is', () => {
    const told = new Map([
      ['old@causeway.example', 'undeliverable' as const],
      ['new@causeway.example', 'deliverable' as const],
    ])
    const seen = view(row('Maren', '', '', 'old@causeway.example; new@causeway.example'), {
      verifiedAs: (address) => told.get(address),
    })
    expect(seen.emails.map(({ address }) => address)).toEqual(['new@causeway.example', 'old@causeway.example'])
    expect(seen).toMatchObject({ emailState: 'deliverable', sureness: 'sure-address' })
    expect(view(row('Maren', '', '', ''))).toMatchObject({ emailState: 'none', sureness: 'nothing', callFrom: '' })
    expect(view(row('Maren', '01665 555018', '', '')).callFrom).toBe('GB Europe/London')
  })

  it('lists a filled number once that the row holds too', () => {
    expect(view(row('Maren', '', '07911 204481', ''), { fills: [MOBILE] }).numbers).toMatchObject([{ origin: 'row' }])
  })

  it('keeps the numbers of joined rows, behind its own', () => {
    const seen = view(row('Maren', '01665 555018', '', ''), {
      members: [row('M. Oldershaw', '', '07911 204481', 'm@causeway.example')],
    })
    expect(seen.numbers.map(({ e164, origin }) => [e164, origin])).toEqual([
      [FIXED, 'row'],
      [MOBILE, 'join'],
    ]) // prettier-ignore
    expect(seen.emails).toHaveLength(1)
    expect(seen.cell?.raw).toBe('07911 204481')
  })

  it('does not text a line that several people hold', () => {
    expect(view(row('Maren', '', '07911 204481', ''), { isShared: () => true })).toMatchObject({
      best: { isShared: true },
      placement: { lane: 'call', reason: 'shared-mobile' },
    })
  })

  it('counts an invalid number as nothing readable', () => {
    expect(view(row('Maren', '+44 7700 551302', '', ''))).toMatchObject({
      isReadable: false,
      placement: { lane: 'parked' },
    })
  })
})
