import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { RoutineShape } from '@upper-field/contract'
import { csvLine, FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { compileRoutine, newStep, type Routine, STEP_KINDS, type StepKind } from '@upper-field/core/tidy'
import { openFile, readFileRows } from '@upper-field/files'
import { z } from 'zod'
import { fileSource } from './fileSource'
import { print } from './print'

/** Prints a file's table as a routine leaves it, in constant memory. What a step cannot do is told on standard error. */
export async function tidy(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { routine: { type: 'string' }, country: { type: 'string' } },
  })
  if (!values.routine) throw new Error('Name a routine: --routine FILE.json')
  const [path] = positionals
  if (!path) throw new Error('Name a file to tidy.')
  const routine = readRoutine(values.routine)
  const country = values.country?.toUpperCase() ?? null
  const source = await fileSource(path)
  try {
    const opened = await openFile(source, path, { country })
    if (opened.status === 'refused') throw new Error(`${path}: ${FILE_PROBLEM_TEXT[opened.problem]}`)
    const mapping = opened.table.suggestions.map(({ field }) => field)
    const tidier = compileRoutine(routine, { mapping, headings: opened.table.headings }, { defaultCountry: country })
    for (const { step, code, detail } of tidier.problems)
      console.error(`step ${step}: ${code === 'column-gone' ? `there is no column ${detail}` : detail}`)
    await print(csvLine(tidier.headings))
    let held = 0
    for await (const { judged } of readFileRows(source, opened)) {
      if (judged.status === 'read') await print(csvLine(tidier.rowOf(judged.cells)))
      if (judged.status === 'held') held++
    }
    if (held > 0) console.error(`held: ${held} rows that could not be read`)
  } finally {
    await source.close()
  }
}

const Written = z.object({
  version: z.number().default(1),
  steps: z.array(
    z.object({
      kind: z.enum(STEP_KINDS),
      id: z.string().optional(),
      isOn: z.boolean().default(true),
      options: z.record(z.string(), z.unknown()).default({}),
    }),
  ),
})

/** A routine as people write it: options that are left out are those a step begins with. */
function readRoutine(path: string): Routine {
  const json: unknown = JSON.parse(readFileSync(path, 'utf8'))
  const written = Written.safeParse(json)
  const parsed = RoutineShape.safeParse(written.success ? completed(written.data) : json)
  if (parsed.success) return parsed.data
  const [issue] = (written.success ? parsed.error : written.error).issues
  throw new Error(`${path} is no routine: ${issue?.path.join('.') || 'it'}: ${issue?.message}`)
}

function completed({ version, steps }: z.output<typeof Written>): unknown {
  return {
    version,
    steps: steps.map(({ kind, id, isOn, options }, i) => ({
      ...newStep(kind as StepKind, id ?? `${kind}-${i + 1}`),
      isOn,
      options: { ...newStep(kind as StepKind, '').options, ...options },
    })),
  }
}
