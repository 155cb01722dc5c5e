import { describe, expect, it } from '@jest/globals'
import { scanRecords } from '../../src/table'

const encode = (text: string) => new TextEncoder().encode(text)

function scan(text: string, isLast = true) {
  const bytes = encode(text)
  const { records, consumed } = scanRecords(bytes, { delimiter: ',', isLast })
  return {
    texts: records.map(({ start, end }) => new TextDecoder().decode(bytes.subarray(start, end))),
    problems: records.map(({ problem }) => problem),
    consumed,
  }
}

describe('scanRecords', () => {
  it.each([
    ['LF', 'a,b\nc,d\n'],
    ['CRLF', 'a,b\r\nc,d\r\n'],
    ['CR alone', 'a,b\rc,d\r'],
    ['no end of the last line', 'a,b\nc,d'],
  ])('ends records at %s', (_, text) => expect(scan(text).texts).toEqual(['a,b', 'c,d']))

  it('keeps line breaks and doubled quotes inside quoted cells', () => {
    expect(scan('a,"b\nb ""x"", y"\nc,d\n').texts).toEqual(['a,"b\nb ""x"", y"', 'c,d'])
  })

  it('leaves a quote inside an unquoted cell alone', () => {
    expect(scan('5" pipe,b\nc,d\n')).toMatchObject({ texts: ['5" pipe,b', 'c,d'], problems: [null, null] })
  })

  it('marks the line of a quote that is never closed, and reads on behind it', () => {
    const { texts, problems } = scan('a,b\n"broken,x\nc,d\ne,f\n')
    expect(texts).toEqual(['a,b', '"broken,x', 'c,d', 'e,f'])
    expect(problems).toEqual([null, 'open-quote', null, null])
  })

  it('notices that a later quote does not close an earlier one', () => {
    const { texts, problems } = scan('"broken,x\n"fine",d\ne,f\n')
    expect(texts).toEqual(['"broken,x', '"fine",d', 'e,f'])
    expect(problems).toEqual(['open-quote', null, null])
  })

  it('leaves an unfinished record for the next piece', () => {
    expect(scan('a,b\nc,', false)).toMatchObject({ texts: ['a,b'], consumed: 4 })
    expect(scan('a,b\nc,"x\n', false)).toMatchObject({ texts: ['a,b'], consumed: 4 })
    expect(scan('a,b\r', false)).toMatchObject({ texts: [], consumed: 0 })
  })

  it('finds the same records whatever the pieces', () => {
    const text = 'h1,h2\n"a\nb",c\r\nd,"e ""f"""\n\nlast,"x"'
    const whole = scan(text).texts
    const bytes = encode(text)
    for (let size = 1; size <= bytes.length; size++) {
      const found: string[] = []
      let from = 0
      for (let to = size; from < bytes.length; to += size) {
        const piece = bytes.subarray(from, Math.min(to, bytes.length))
        const { records, consumed } = scanRecords(piece, { delimiter: ',', isLast: to >= bytes.length })
        found.push(...records.map(({ start, end }) => new TextDecoder().decode(piece.subarray(start, end))))
        from += consumed
      }
      expect(found).toEqual(whole)
    }
  })

  it('cuts a line without an end instead of holding it all', () => {
    const bytes = new Uint8Array(9 << 20).fill(0x61)
    const { records } = scanRecords(bytes, { delimiter: ',', isLast: false })
    expect(records).toMatchObject([{ start: 0, end: 8 << 20, problem: 'row-too-long' }])
  })
})
