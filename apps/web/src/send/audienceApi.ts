import { api } from '../api'
import { callsOf } from '../callServer'

/** Calls about audiences and their networks. */
const audienceApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, change } = callsOf(build)
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
