import { api } from '../api'
import { callsOf } from '../callServer'

/** Calls about pages that are read for numbers. */
const harvestApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, change } = callsOf(build)
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
