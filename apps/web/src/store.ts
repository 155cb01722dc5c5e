import { configureStore } from '@reduxjs/toolkit'
import { useDispatch } from 'react-redux'
import { api } from './api'

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer },
  middleware: (standard) => standard().concat(api.middleware),
})

export type AppDispatch = typeof store.dispatch
export const useAppDispatch = useDispatch.withTypes<AppDispatch>()
