import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { api } from './api'
import { waitingActs } from './shell/waitingActs'

/** Checks of development say that they are slow only where they are: a state full of answers takes a moment. */
const PATIENT = { immutableCheck: { warnAfter: 500 }, serializableCheck: { warnAfter: 500 } }

/** A store that knows nothing yet. */
export const newStore = () =>
  configureStore({
    reducer: { [api.reducerPath]: api.reducer, waitingActs },
    middleware: (standard) => standard(PATIENT).concat(api.middleware),
  })

export const store = newStore()

export type RootState = ReturnType<typeof store.getState>
export type AppDispatch = typeof store.dispatch
export const useAppDispatch = useDispatch.withTypes<AppDispatch>()
export const useAppSelector = useSelector.withTypes<RootState>()
