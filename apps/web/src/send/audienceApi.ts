import type { CallInput, EndpointName, ResponseOf } from '@upper-field/contract'
import { endpoints } from '@upper-field/contract'
import { api } from '../api'

/** Calls about audiences and their networks. */
const audienceApi = api.injectEndpoints({
  endpoints: (build) => {
    const read = <N extends EndpointName>(name: N, ...tags: ('Audiences' | 'Keys')[]) =>
      build.query<ResponseOf<N>, CallInput<N>>({ query: (input) => ({ name, input }), providesTags: tags })
    const change = <N extends EndpointName>(name: N, ...tags: ('Audiences' | 'Keys' | 'Jobs' | 'Editions')[]) =>
      build.mutation<ResponseOf<N>, CallInput<N>>({
        query: (input) => ({ name, input, ...(endpoints[name].isIdempotent ? { key: crypto.randomUUID() } : {}) }),
        invalidatesTags: tags,
      })
    return {
      readDestinationKeys: read('readDestinationKeys', 'Keys'),
      keepDestinationKey: change('keepDestinationKey', 'Keys'),
      removeDestinationKey: change('removeDestinationKey', 'Keys'),
      readAccounts: read('readAccounts', 'Keys'),
      readAudiences: read('readAudiences', 'Audiences'),
      readAudience: read('readAudience', 'Audiences'),
      makeAudience: change('makeAudience', 'Audiences'),
      changeAudience: change('changeAudience', 'Audiences'),
      removeAudience: change('removeAudience', 'Audiences'),
      prepareEdition: change('prepareEdition', 'Audiences', 'Jobs', 'Editions'),
      deliverEdition: change('deliverEdition', 'Audiences', 'Jobs'),
      deliverRemovals: change('deliverRemovals', 'Audiences', 'Jobs'),
      lookAtAudience: change('lookAtAudience', 'Audiences'),
      startTrial: change('startTrial', 'Audiences'),
      makeSimilar: change('makeSimilar', 'Audiences'),
    }
  },
})

export const {
  useReadDestinationKeysQuery,
  useKeepDestinationKeyMutation,
  useRemoveDestinationKeyMutation,
  useReadAccountsQuery,
  useReadAudiencesQuery,
  useReadAudienceQuery,
  useMakeAudienceMutation,
  useChangeAudienceMutation,
  useRemoveAudienceMutation,
  usePrepareEditionMutation,
  useDeliverEditionMutation,
  useDeliverRemovalsMutation,
  useLookAtAudienceMutation,
  useStartTrialMutation,
  useMakeSimilarMutation,
} = audienceApi
