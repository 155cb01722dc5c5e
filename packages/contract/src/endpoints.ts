import type { z } from 'zod'
import { audienceEndpoints } from './endpoints/audiences'
import { automationEndpoints } from './endpoints/automations'
import { bringEndpoints } from './endpoints/bring'
import { directoryEndpoints } from './endpoints/directory'
import type { Endpoint } from './endpoints/endpoint'
import { harvestEndpoints } from './endpoints/harvest'
import { jobsEndpoints } from './endpoints/jobs'
import { listsEndpoints } from './endpoints/lists'
import { machineEndpoints } from './endpoints/machine'
import { moneyEndpoints } from './endpoints/money'
import { pairEndpoints } from './endpoints/pair'
import { peopleEndpoints } from './endpoints/people'
import { sendEndpoints } from './endpoints/send'
import { splitEndpoints } from './endpoints/split'
import { suppressionEndpoints } from './endpoints/suppression'
import { tidyEndpoints } from './endpoints/tidy'
import { todayEndpoints } from './endpoints/today'

export type { Endpoint } from './endpoints/endpoint'

/** The whole API: the server serves it, the client calls it, OpenAPI describes it. */
export const endpoints = {
  ...peopleEndpoints,
  ...listsEndpoints,
  ...tidyEndpoints,
  ...pairEndpoints,
  ...bringEndpoints,
  ...harvestEndpoints,
  ...directoryEndpoints,
  ...machineEndpoints,
  ...automationEndpoints,
  ...jobsEndpoints,
  ...moneyEndpoints,
  ...splitEndpoints,
  ...sendEndpoints,
  ...audienceEndpoints,
  ...suppressionEndpoints,
  ...todayEndpoints,
} satisfies Record<string, Endpoint>

export type Endpoints = typeof endpoints
export type EndpointName = keyof Endpoints
export type ParamsOf<N extends EndpointName> = z.input<Endpoints[N]['params']>
export type QueryOf<N extends EndpointName> = z.input<Endpoints[N]['query']>
export type BodyOf<N extends EndpointName> = Endpoints[N]['body'] extends z.ZodType
  ? z.input<Endpoints[N]['body']>
  : undefined
export type ResponseOf<N extends EndpointName> = Endpoints[N]['response'] extends z.ZodType
  ? z.output<Endpoints[N]['response']>
  : unknown
