import type { Directory } from '../directory'
import type { Service, StandInOptions } from '../http'
import type { World } from '../world'
import { brindle } from './brindle'
import { corvane } from './corvane'
import { ferrier } from './ferrier'
import { marram } from './marram'
import { pellow } from './pellow'
import { pellowRegisters } from './pellowRegisters'
import { quillwort } from './quillwort'
import { saltmarsh } from './saltmarsh'
import { tansy } from './tansy'
import { thornwick } from './thornwick'

/** The services of the outside world, each below its own name. */
export const SERVICES = {
  brindle,
  corvane,
  ferrier,
  marram,
  pellow,
  'pellow-registers': pellowRegisters,
  quillwort,
  saltmarsh,
  tansy,
  thornwick,
} satisfies Record<string, (world: World, directory: Directory, key: string, options: StandInOptions) => Service>
export type ServiceName = keyof typeof SERVICES
export const SERVICE_NAMES = Object.keys(SERVICES) as readonly ServiceName[]
