import { createBrowserRouter, Navigate } from 'react-router'
import { Frame } from './shell/Frame'
import { ListFrame } from './shell/ListFrame'
import { NotThere } from './shell/NotThere'

// Each view is loaded when it is opened: whoever signs in does not wait for all of them.
export const router = createBrowserRouter([
  {
    path: '/sign-in',
    HydrateFallback: () => null,
    lazy: async () => ({ Component: (await import('./people/SignInView')).SignInView }),
  },
  {
    path: '/',
    element: <Frame />,
    HydrateFallback: () => null,
    errorElement: <NotThere />,
    children: [
      { index: true, element: <Navigate to="/lists" replace /> },
      { path: 'lists', lazy: async () => ({ Component: (await import('./lists/ListsView')).ListsView }) },
      {
        path: 'providers',
        lazy: async () => ({ Component: (await import('./connections/ProvidersView')).ProvidersView }),
      },
      {
        path: 'providers/:provider',
        lazy: async () => ({ Component: (await import('./connections/ConnectorView')).ConnectorView }),
      },
      {
        path: 'destinations',
        lazy: async () => ({ Component: (await import('./destinations/DestinationsView')).DestinationsView }),
      },
      {
        path: 'destinations/:destination',
        lazy: async () => ({ Component: (await import('./destinations/DestinationView')).DestinationView }),
      },
      { path: 'programs', lazy: async () => ({ Component: (await import('./programs/ProgramsView')).ProgramsView }) },
      { path: 'people', lazy: async () => ({ Component: (await import('./people/PeopleView')).PeopleView }) },
      {
        path: 'suppression',
        lazy: async () => ({ Component: (await import('./suppression/SuppressionView')).SuppressionView }),
      },
      { path: 'spend', lazy: async () => ({ Component: (await import('./spend/SpendView')).SpendView }) },
      {
        path: 'lists/:listId',
        element: <ListFrame />,
        children: [
          { index: true, element: <Navigate to="tidy" replace /> },
          { path: 'bring', lazy: async () => ({ Component: (await import('./bring/BringView')).BringView }) },
          { path: 'bring/pages', lazy: async () => ({ Component: (await import('./harvest/PagesView')).PagesView }) },
          {
            path: 'bring/pages/:harvestId',
            lazy: async () => ({ Component: (await import('./harvest/HarvestView')).HarvestView }),
          },
          {
            path: 'bring/directory',
            lazy: async () => ({ Component: (await import('./directory/DirectoryView')).DirectoryView }),
          },
          {
            path: 'bring/directory/:searchId',
            lazy: async () => ({ Component: (await import('./directory/DirectorySearchView')).DirectorySearchView }),
          },
          {
            path: 'bring/automations',
            lazy: async () => ({ Component: (await import('./automations/AutomationsView')).AutomationsView }),
          },
          { path: 'tidy', lazy: async () => ({ Component: (await import('./tidy/TidyView')).TidyView }) },
          { path: 'pair', lazy: async () => ({ Component: (await import('./pair/PairView')).PairView }) },
          { path: 'check', lazy: async () => ({ Component: (await import('./check/CheckView')).CheckView }) },
          { path: 'fill', lazy: async () => ({ Component: (await import('./fill/FillView')).FillView }) },
          { path: 'split', lazy: async () => ({ Component: (await import('./split/SplitView')).SplitView }) },
          { path: 'send', lazy: async () => ({ Component: (await import('./send/SendView')).SendView }) },
        ],
      },
      { path: '*', element: <NotThere /> },
    ],
  },
])
