import { readPhoneCell } from '../../src/phone'

/** A reading in one line: numbers with extension and label, then the problem, then the remark. */
export function shown(raw: string, country: string | null): string {
  const { verdict, numbers, problem, remark } = readPhoneCell(raw, { country })
  const parts = numbers.map(({ e164, extension, label }) =>
    [e164, extension === null ? '' : `x${extension}`, label ?? ''].filter((part) => part !== '').join(' '),
  )
  const found = parts.join(', ') || verdict
  return [found, problem === null ? '' : `! ${problem}`, remark === undefined ? '' : `“${remark}”`]
    .filter((part) => part !== '')
    .join(' ')
}

export type Case = readonly [raw: string, country: string | null, shown: string]
