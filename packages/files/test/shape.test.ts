import { describe, expect, it } from '@jest/globals'
import { book, utf8 } from './makers'
import { take } from './takeFile'

describe('the table inside the sheet', () => {
  it('below a title, a date and blank rows', async () => {
    const made = utf8(
      'Autumn fair 2026,,\nExported 3 May 2026 10:15,,\n,,\nName,Phone,E-mail\nAnn,020 7946 1234,a@b.example\n',
    )
    expect(await take(made)).toMatchObject({ headingsRow: 4, headings: ['Name', 'Phone', 'E-mail'], held: [] })
  })

  it('under two lines of headings, and above its units', async () => {
    const made = book([
      {
        cells: [
          ['Contact', null, 'Reach', null],
          ['Name', 'Company', 'Phone', 'E-mail'],
          ['text', 'text', '(E.164)', 'text'],
          ['Ann Hill', 'Rote Ltd', '+44 20 7946 1234', 'a@rote.example'],
          ['Ben Cole', 'Linde Ltd', '+44 20 7946 1235', 'b@linde.example'],
        ],
        merged: ['A1:B1', 'C1:D1'],
      },
    ])
    const found = await take(made, 'x.xlsx')
    expect(found.headings).toEqual(['Contact Name', 'Contact Company', 'Reach Phone', 'Reach E-mail'])
    expect(found.fields).toEqual(['full-name', 'company', 'number', 'email'])
    expect(found.rows).toHaveLength(2)
    expect(found.codes).toEqual(expect.arrayContaining(['two-line-headings', 'units-row']))
  })

  it('without headings', async () => {
    const made = utf8('Ann Hill,a@b.example,+44 20 7946 1234\nBen Cole,b@b.example,+44 20 7946 1235\n')
    expect(await take(made)).toMatchObject({
      headingsRow: null,
      headings: ['Column 1', 'Column 2', 'Column 3'],
      fields: ['full-name', 'email', 'number'],
    })
  })

  it('with headings that stand twice over columns, and once more among the rows', async () => {
    const made = utf8('Name,Phone,Phone\nAnn,020 7946 1234,020 7946 1235\nName,Phone,Phone\nBen,020 7946 1236,\n')
    expect(await take(made)).toMatchObject({
      headings: ['Name', 'Phone', 'Phone 2'],
      held: ['3 heading-again'],
      rows: [
        ['Ann', '020 7946 1234', '020 7946 1235'],
        ['Ben', '020 7946 1236', ''],
      ],
    })
  })

  it('with a sum and a remark below', async () => {
    const made = utf8(
      'Name,Phone,Pitches\nAnn,020 7946 1234,40\nBen,020 7946 1235,2\nTotal,,42\n,,\nSource: own count,,\n',
    )
    expect(await take(made)).toMatchObject({ held: ['4 totals-row', '6 footer'] })
  })

  it('a person called Total, or with a remark for a name, is a contact all the same', async () => {
    const made = utf8('Name,Phone,Note\nTotal Energies,020 7946 1234,x\nPage Turner,020 7946 1235,y\n')
    expect((await take(made)).held).toEqual([])
  })

  it('between empty columns', async () => {
    const found = await take(
      book([
        {
          cells: [
            [null, 'Name', null, 'Phone'],
            [null, 'Ann', null, '020 7946 1234'],
          ],
        },
      ]),
      'x.xlsx',
    )
    expect(found).toMatchObject({ headings: ['Name', 'Phone'], rows: [['Ann', '020 7946 1234']] })
    expect(found.codes).toContain('empty-columns')
  })

  it('headings set by the operator, or said to be none', async () => {
    const made = utf8('Name,Phone\nNombre,Teléfono\nAnn,020 7946 1234\n')
    expect(await take(made, 'x.csv', { headings: 2 })).toMatchObject({
      headings: ['Nombre', 'Teléfono'],
      rows: [['Ann', '020 7946 1234']],
    })
    expect((await take(made, 'x.csv', { headings: 'none' })).rows).toHaveLength(3)
  })

  it('a row taken for units or more headings is a contact again where the operator says so', async () => {
    const made = utf8('Name,Phone\n(text),(E.164)\nAnn,020 7946 1234\nBen,020 7946 1235\n')
    expect((await take(made)).rows).toHaveLength(2)
    expect((await take(made, 'x.csv', { headings: 1 })).rows).toHaveLength(3)
  })

  it('a row longer and one shorter than the rest are held', async () => {
    const made = utf8('a name,phone,mail\nAnn,1,a@b.example\nBen,2\nCy,3,c@b.example,extra\nDi,4,d@b.example\n')
    expect(await take(made)).toMatchObject({ held: ['3 too-few-cells', '4 too-many-cells'] })
  })
})
