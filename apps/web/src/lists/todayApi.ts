import { api } from '../api'
import { callsOf } from '../callServer'

/** Calls about what wants doing over all lists. Every change of a list may change that. */
const todayApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, change } = callsOf(build)
    return {
      readToday: read('readToday', 'Today', 'List', 'Lists', 'Audiences', 'Batches', 'Jobs', 'Spend', 'Calls'),
      searchLists: read('searchLists', 'List', 'Lists'),
      makeCalendar: change('makeCalendar'),
      removeCalendar: change('removeCalendar'),
    }
  },
})

export const { useReadTodayQuery, useSearchListsQuery, useMakeCalendarMutation, useRemoveCalendarMutation } = todayApi
