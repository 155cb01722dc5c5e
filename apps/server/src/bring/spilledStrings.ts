import { closeSync, mkdtempSync, openSync, readSync, rmSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { StringStore } from '@upper-field/files'

/** Texts in one block. Cells refer to texts roughly in order, so a block serves many cells. */
const BLOCK = 512
const KEPT_BLOCKS = 128

/**
 * Keeps the shared texts of a workbook in a file for as long as it is read: a large workbook holds millions of them.
 * In memory stay the places of the blocks and the blocks used last.
 */
export function spilledStrings(): StringStore {
  const folder = mkdtempSync(join(tmpdir(), 'upper-field-'))
  const file = openSync(join(folder, 'texts'), 'w+')
  const ends: number[] = []
  const cache = new Map<number, readonly string[]>()
  let open: string[] = []
  let size = 0
  const flush = () => {
    const bytes = Buffer.from(JSON.stringify(open))
    writeSync(file, bytes, 0, bytes.length, size)
    size += bytes.length
    ends.push(size)
    open = []
  }
  const block = (index: number): readonly string[] => {
    const known = cache.get(index)
    if (known) return known
    const start = index === 0 ? 0 : (ends[index - 1] ?? size)
    const bytes = Buffer.alloc((ends[index] ?? size) - start)
    readSync(file, bytes, 0, bytes.length, start)
    const texts = JSON.parse(bytes.toString()) as string[]
    cache.set(index, texts)
    const [oldest] = cache.keys()
    if (cache.size > KEPT_BLOCKS && oldest !== undefined) cache.delete(oldest)
    return texts
  }
  return {
    add: (text) => {
      open.push(text)
      if (open.length === BLOCK) flush()
    },
    get: (index) => {
      const at = Math.floor(index / BLOCK)
      return (at < ends.length ? block(at) : open)[index % BLOCK] ?? ''
    },
    close: () => {
      closeSync(file)
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
