import { api } from '../api'
import { callsOf } from '../callServer'

/** Calls about other programs: their keys, and who is told what happens. */
const programApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, change } = callsOf(build)
    return {
      readMachineKeys: read('readMachineKeys', 'Programs'),
      readMachineCalls: read('readMachineCalls', 'Programs'),
      makeMachineKey: change('makeMachineKey', 'Programs'),
      rotateMachineKey: change('rotateMachineKey', 'Programs'),
      withdrawMachineKey: change('withdrawMachineKey', 'Programs'),
      readWebhooks: read('readWebhooks', 'Programs'),
      readWebhookMessages: read('readWebhookMessages', 'Programs'),
      makeWebhook: change('makeWebhook', 'Programs'),
      changeWebhook: change('changeWebhook', 'Programs'),
      removeWebhook: change('removeWebhook', 'Programs'),
      sendWebhookAgain: change('sendWebhookAgain', 'Programs'),
    }
  },
})

export const {
  useReadMachineKeysQuery,
  useReadMachineCallsQuery,
  useMakeMachineKeyMutation,
  useRotateMachineKeyMutation,
  useWithdrawMachineKeyMutation,
  useReadWebhooksQuery,
  useReadWebhookMessagesQuery,
  useMakeWebhookMutation,
  useChangeWebhookMutation,
  useRemoveWebhookMutation,
  useSendWebhookAgainMutation,
} = programApi
