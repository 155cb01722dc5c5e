import { api } from '../api'
import { callsOf } from '../callServer'

/** Calls about what a list has done by itself. */
const automationApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, change } = callsOf(build)
    return {
      readAutomations: read('readAutomations', 'Automations'),
      readAutomationRuns: read('readAutomationRuns', 'Automations'),
      makeAutomation: change('makeAutomation', 'Automations'),
      switchAutomation: change('switchAutomation', 'Automations'),
      removeAutomation: change('removeAutomation', 'Automations'),
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
