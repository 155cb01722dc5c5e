import { describe, expect, it } from '@jest/globals'
import { shownText } from '../src/shownText'

describe('a number as a spreadsheet shows it', () => {
  it.each<[number, string, string, boolean]>([
    [447911204481, 'General', '447911204481', true],
    [79112, 'General', '79112', false],
    [447911204481, '0', '447911204481', false],
    [447911204481, '0.00E+00', '447911204481', true],
    [1234, '00000', '01234', false],
    [7911204481, '"+44 "0', '+44 7911204481', false],
    [2125550188, '(000) 000-0000', '(212) 555-0188', false],
    [12.345, '0.0', '12.345', true],
    [12.5, '0.00', '12.50', false],
    [0.5, '0%', '50%', false],
    [1234567, '#,##0', '1,234,567', false],
    [46145, 'dd/mm/yyyy', '03/05/2026', false],
    [46145, 'm/d/yy', '2026-05-03', false],
    [46145.5, 'm/d/yy h:mm', '2026-05-03 12:00', false],
    [1e21, 'General', '1000000000000000000000', true],
  ])('%d by %j is %j; stored digits: %s', (value, format, text, isStored) =>
    expect(shownText(value, format)).toEqual({ text, isStored }),
  )

  it('dates of the other epoch', () => expect(shownText(44683, 'dd/mm/yyyy', true).text).toBe('03/05/2026'))
})
