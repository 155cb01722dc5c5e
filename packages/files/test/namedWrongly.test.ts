import { describe, expect, it } from '@jest/globals'
import { book, utf8 } from './makers'
import { type Made, take } from './takeFile'

describe('a file named wrongly is read by its content, and that is said', () => {
  it.each<[string, Made, string, string]>([
    [
      'a workbook called .csv',
      book([
        {
          cells: [
            ['Name', 'Phone'],
            ['Ann', '1'],
          ],
        },
      ]),
      'x.csv',
      'xlsx',
    ],
    ['a text called .xlsx', utf8('Name,Phone\nAnn,1\n'), 'x.xlsx', 'csv'],
    ['JSON called .csv', utf8('[{"name":"Ann","phone":"1"}]'), 'x.csv', 'json'],
    [
      'an old workbook called .xlsx',
      book(
        [
          {
            cells: [
              ['Name', 'Phone'],
              ['Ann', '1'],
            ],
          },
        ],
        'biff8',
      ),
      'x.xlsx',
      'xls',
    ],
  ])('%s', async (_, made, name, format) => {
    const found = await take(made, name)
    expect(found.format).toBe(format)
    expect(found.codes).toContain('named-otherwise')
  })
})
