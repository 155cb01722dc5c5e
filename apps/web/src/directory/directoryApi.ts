import { api } from '../api'
import { callsOf } from '../callServer'

/** Calls about businesses from directories. */
const directoryApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, change } = callsOf(build)
    return {
      lookUpInDirectory: read('lookUpInDirectory'),
      planDirectorySearch: change('planDirectorySearch'),
      startDirectorySearch: change('startDirectorySearch', 'Directory', 'Jobs'),
      readDirectorySearches: read('readDirectorySearches', 'Directory'),
      readDirectorySearch: read('readDirectorySearch', 'Directory'),
      readDirectoryRecords: read('readDirectoryRecords', 'Directory'),
    }
  },
})

export const {
  useLookUpInDirectoryQuery,
  usePlanDirectorySearchMutation,
  useStartDirectorySearchMutation,
  useReadDirectorySearchesQuery,
  useReadDirectorySearchQuery,
  useReadDirectoryRecordsQuery,
} = directoryApi
