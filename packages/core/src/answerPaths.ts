import { JSONPathEnvironment, type JSONPathQuery } from 'json-p3'
import { remember } from './remember'

/** Patterns in a query could take for ever on the text of an answer: they are not known here. */
function createEnvironment(): JSONPathEnvironment {
  const environment = new JSONPathEnvironment()
  for (const name of ['match', 'search']) environment.functionRegister.delete(name)
  return environment
}

const environment = createEnvironment()
const queryOf = remember((path: string): JSONPathQuery => environment.compile(path), 500)

/** Why a JSONPath (RFC 9535) cannot be used, as a sentence; null where it can. */
export function whyNoPath(path: string): string | null {
  try {
    queryOf(path)
    return null
  } catch (error) {
    return error instanceof Error ? `${error.message.split('\n')[0]}.` : 'This is no JSONPath.'
  }
}

type Json = Parameters<JSONPathQuery['query']>[0]

/** What stands at a path. Nothing, where an answer is nested deeper than anybody means. */
export function valuesAt(path: string, json: unknown): readonly unknown[] {
  try {
    return queryOf(path)
      .query(json as Json)
      .values()
  } catch {
    return []
  }
}

/** The first value at a path that is no object and no list. */
export function plainAt(path: string, json: unknown): string | number | boolean | undefined {
  for (const value of valuesAt(path, json)) {
    if (typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean') return value
  }
  return undefined
}
