import { isDeepStrictEqual } from 'node:util'
import { expect } from '@jest/globals'
import { type ApiClient, endpoints } from '@upper-field/contract'

/** The same calls; each fails where its answer is not what the contract tells, or tells more: what is not told of may be anybody's. */
export const heldToContract = (api: ApiClient): ApiClient => ({
  ...api,
  call: async (name, ...input) => {
    const answer = await api.call(name, ...input)
    const { response } = endpoints[name]
    if (typeof response === 'string') return answer
    const told = response.safeParse(answer)
    if (!told.success) throw new Error(`${name} does not answer as the contract tells: ${told.error.message}`)
    if (!isDeepStrictEqual(told.data, answer)) expect({ [name]: answer }).toEqual({ [name]: told.data })
    return answer
  },
})
