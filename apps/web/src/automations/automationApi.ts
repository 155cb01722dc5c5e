import type { CallInput, EndpointName, ResponseOf } from '@upper-field/contract'
import { api } from '../api'

/** Calls about what a list has done by itself. */
const automationApi = api.injectEndpoints({
  endpoints: (build) => {
    const read = <N extends EndpointName>(name: N) =>
      build.query<ResponseOf<N>, CallInput<N>>({ query: (input) => ({ name, input }), providesTags: ['Automations'] })
    const change = <N extends EndpointName>(name: N) =>
      build.mutation<ResponseOf<N>, CallInput<N>>({
        query: (input) => ({ name, input }),
        invalidatesTags: ['Automations'],
      })
    return {
      readAutomations: read('readAutomations'),
      readAutomationRuns: read('readAutomationRuns'),
      makeAutomation: change('makeAutomation'),
      switchAutomation: change('switchAutomation'),
      removeAutomation: change('removeAutomation'),
    }
  },
})

export const {
  useReadAutomationsQuery,
  useReadAutomationRunsQuery,
  useMakeAutomationMutation,
  useSwitchAutomationMutation,
  useRemoveAutomationMutation,
} = automationApi
