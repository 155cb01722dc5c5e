import { decoderOf, scanRecords, splitCells } from '@upper-field/core/table'
import { fairBadges } from '@upper-field/demo'
import { createWorld } from '@upper-field/standins/world'
import { inferSchema, initParser } from 'udsv'

const ROUNDS = 5

/** Our records and cells, found on bytes, against udsv on the same text: cells as strings, nothing read into them. */
export async function parseBench({ rows }: { rows: number | null }): Promise<void> {
  const count = rows ?? 50_000
  const { bytes } = fairBadges(createWorld('bench', { people: Math.ceil(count * 0.8) }), { rows: count })
  const ratios: number[] = []
  let cells = [0, 0]
  for (let round = 0; round <= ROUNDS; round++) {
    const [theirs, theirCells] = timed(() => byUdsv(bytes))
    const [ours, ourCells] = timed(() => byUs(bytes))
    cells = [theirCells, ourCells]
    if (round > 0) ratios.push(ours / theirs)
  }
  ratios.sort((a, b) => a - b)
  console.log(`${count} rows, ${(bytes.length / 1e6).toFixed(1)} MB; cells: udsv ${cells[0]}, ours ${cells[1]}`)
  console.log(`time against udsv: ${ratios[2]?.toFixed(2)} (${ratios[0]?.toFixed(2)} to ${ratios.at(-1)?.toFixed(2)})`)
}

function timed(work: () => number): [milliseconds: number, cells: number] {
  const start = performance.now()
  const cells = work()
  return [performance.now() - start, cells]
}

function byUdsv(bytes: Uint8Array): number {
  const text = new TextDecoder().decode(bytes)
  const parser = initParser(inferSchema(text))
  return parser.stringArrs(text).reduce((sum, row) => sum + row.length, 0)
}

function byUs(bytes: Uint8Array): number {
  const decode = decoderOf('utf-8')
  const { records } = scanRecords(bytes, { delimiter: ',', isLast: true })
  let cells = 0
  for (const { start, end } of records.slice(1)) cells += splitCells(decode(bytes.subarray(start, end)), ',').length
  return cells
}
