import {
  type AnswerItem,
  type Call,
  type Connector,
  type Counted,
  type Directory,
  type Named,
  type PageEnd,
  type RequestValues,
  readCount,
  readItems,
  readNamed,
  readPageEnd,
  readPrice,
} from '@upper-field/core/connect'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'
import { callWithRetries, NOTHING, openTarget, parse } from './client'

/** Which businesses, and what is known of them already. */
export interface Asking {
  readonly trade: string
  readonly place: string
  readonly knownRecords: readonly string[]
  readonly knownNumbers: readonly string[]
}

/** A page of businesses. */
export interface Page extends PageEnd {
  readonly items: readonly AnswerItem[]
  /** What one charge costs by the answer's own word, in millionths of a euro; null where it tells nothing of it. */
  readonly price: number | null
}

/** Calls a directory as its connector says. Every call throws a job problem where it has no answer that can be read. */
export interface OpenDirectory {
  readonly connector: Connector
  readonly directory: Directory
  lookUp(what: 'trades' | 'places', search: string): Promise<readonly Named[]>
  count(asking: Asking): Promise<Counted>
  /** The key makes the call safe to repeat: it is answered once and charged once. */
  page(asking: Asking & { readonly cursor: string; readonly size: number }, idempotencyKey: string): Promise<Page>
}

/** Opens the connection to a directory. Throws a job problem where none is configured under this id. */
export async function openDirectory(services: Services, id: string): Promise<OpenDirectory> {
  const target = await openTarget(services, id)
  const { connector } = target
  const { directory } = connector
  if (!directory) throw new JobProblem('no-directory')
  const ask = async (call: Call, values: RequestValues, key: string | null) => {
    const told = await callWithRetries(target, call, values, key)
    return told === NOTHING ? NOTHING : parse(told)
  }
  return {
    connector,
    directory,
    lookUp: async (what, search) => {
      const json = await ask(directory[what].call, { search }, null)
      return json === NOTHING ? [] : readable(readNamed(directory[what], json))
    },
    count: async (asking) => {
      const json = await ask(directory.count.call, asking, null)
      return json === NOTHING ? NONE : readable(readCount(directory.count, json))
    },
    page: async (asking, key) => {
      const json = await ask(connector.one.call, asking, key)
      if (json === NOTHING) return { items: [], price: null, next: null, leftOut: 0 }
      const read = readItems(connector, connector.one, json, directory.perPage)
      if (read.status === 'odd') throw new JobProblem(read.problem)
      return { items: read.items, price: readPrice(connector, json), ...readPageEnd(directory, json) }
    },
  }
}

const NONE: Counted = { total: 0, leftOut: 0, price: null }

function readable<T>(read: T | null): T {
  if (read === null) throw new JobProblem('odd-answer')
  return read
}
