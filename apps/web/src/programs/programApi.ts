import type { CallInput, EndpointName, ResponseOf } from '@upper-field/contract'
import { api } from '../api'

/** Calls about other programs: their keys, and who is told what happens. */
const programApi = api.injectEndpoints({
  endpoints: (build) => {
    const read = <N extends EndpointName>(name: N) =>
      build.query<ResponseOf<N>, CallInput<N>>({ query: (input) => ({ name, input }), providesTags: ['Programs'] })
    const change = <N extends EndpointName>(name: N) =>
      build.mutation<ResponseOf<N>, CallInput<N>>({
        query: (input) => ({ name, input }),
        invalidatesTags: ['Programs'],
      })
    return {
      readMachineKeys: read('readMachineKeys'),
      readMachineCalls: read('readMachineCalls'),
      makeMachineKey: change('makeMachineKey'),
      rotateMachineKey: change('rotateMachineKey'),
      withdrawMachineKey: change('withdrawMachineKey'),
      readWebhooks: read('readWebhooks'),
      readWebhookMessages: read('readWebhookMessages'),
      makeWebhook: change('makeWebhook'),
      changeWebhook: change('changeWebhook'),
      removeWebhook: change('removeWebhook'),
      sendWebhookAgain: change('sendWebhookAgain'),
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
