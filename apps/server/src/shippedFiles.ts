import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/**
 * The JSON files of a folder that ships with the application, in the order of their names: it lies beside the folder of
 * the sources, and beside the bundle. Throws where there is none: that is an error of the build.
 */
export function shippedFiles(folder: string): readonly string[] {
  const here = dirname(fileURLToPath(import.meta.url))
  const found = [join(here, '..', folder), join(here, folder)].map(filesIn).find((files) => files.length > 0)
  if (!found) throw new Error(`no ${folder} beside ${here}`)
  return found
}

function filesIn(path: string): string[] {
  try {
    const names = readdirSync(path).filter((name) => name.endsWith('.json'))
    return names.sort().map((name) => readFileSync(join(path, name), 'utf8'))
  } catch {
    return []
  }
}
