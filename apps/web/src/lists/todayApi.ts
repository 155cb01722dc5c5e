import type { CallInput, ResponseOf } from '@upper-field/contract'
import { api } from '../api'

/** Calls about what wants doing over all lists. Every change of a list may change that. */
const todayApi = api.injectEndpoints({
  endpoints: (build) => ({
    readToday: build.query<ResponseOf<'readToday'>, CallInput<'readToday'>>({
      query: (input) => ({ name: 'readToday', input }),
      providesTags: ['Today', 'List', 'Lists', 'Audiences', 'Batches', 'Jobs', 'Spend', 'Calls'],
    }),
    searchLists: build.query<ResponseOf<'searchLists'>, CallInput<'searchLists'>>({
      query: (input) => ({ name: 'searchLists', input }),
      providesTags: ['List', 'Lists'],
    }),
    makeCalendar: build.mutation<ResponseOf<'makeCalendar'>, CallInput<'makeCalendar'>>({
      query: (input) => ({ name: 'makeCalendar', input }),
    }),
    removeCalendar: build.mutation<ResponseOf<'removeCalendar'>, CallInput<'removeCalendar'>>({
      query: (input) => ({ name: 'removeCalendar', input }),
    }),
  }),
})

export const { useReadTodayQuery, useSearchListsQuery, useMakeCalendarMutation, useRemoveCalendarMutation } = todayApi
