import { join } from 'node:path'

/** Where a program of ours stands that runs beside this one: beside the bundle; from the sources, as tests run them, the built one. */
export const builtProgram = (name: string): string =>
  join(import.meta.dirname, import.meta.dirname.endsWith('dist') ? '.' : '../dist', name)
