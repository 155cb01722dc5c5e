import type { CallInput, EndpointName, ResponseOf } from '@upper-field/contract'
import { endpoints } from '@upper-field/contract'
import { api } from '../api'

/** Calls about pages that are read for numbers. */
const harvestApi = api.injectEndpoints({
  endpoints: (build) => {
    const read = <N extends EndpointName>(name: N, ...tags: ('Harvests' | 'Formats')[]) =>
      build.query<ResponseOf<N>, CallInput<N>>({ query: (input) => ({ name, input }), providesTags: tags })
    const change = <N extends EndpointName>(
      name: N,
      ...tags: ('Harvests' | 'Formats' | 'Jobs' | 'Batches' | 'List')[]
    ) =>
      build.mutation<ResponseOf<N>, CallInput<N>>({
        query: (input) => ({ name, input, ...(endpoints[name].isIdempotent ? { key: crypto.randomUUID() } : {}) }),
        invalidatesTags: tags,
      })
    return {
      planHarvest: change('planHarvest'),
      startHarvest: change('startHarvest', 'Harvests', 'Jobs'),
      readHarvests: read('readHarvests', 'Harvests'),
      readHarvest: read('readHarvest', 'Harvests'),
      readHarvestedSite: read('readHarvestedSite', 'Harvests'),
      decideFinding: change('decideFinding', 'Harvests'),
      readPagesAgain: change('readPagesAgain', 'Harvests', 'Jobs'),
      takeHarvest: change('takeHarvest', 'Harvests', 'Batches', 'List'),
      learnFormat: change('learnFormat'),
      tryFormat: change('tryFormat'),
      keepFormat: change('keepFormat', 'Harvests', 'Formats'),
      readFormats: read('readFormats', 'Formats'),
      dropFormat: change('dropFormat', 'Formats'),
    }
  },
})

export const {
  usePlanHarvestMutation,
  useStartHarvestMutation,
  useReadHarvestsQuery,
  useReadHarvestQuery,
  useReadHarvestedSiteQuery,
  useDecideFindingMutation,
  useReadPagesAgainMutation,
  useTakeHarvestMutation,
  useLearnFormatMutation,
  useTryFormatMutation,
  useKeepFormatMutation,
  useReadFormatsQuery,
  useDropFormatMutation,
} = harvestApi
