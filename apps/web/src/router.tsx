import type { ComponentType } from 'react'
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router'
import { Broken } from './shell/Broken'
import { Frame } from './shell/Frame'
import { ListFrame } from './shell/ListFrame'
import { NotThere } from './shell/NotThere'

/** A view that is loaded when it is opened: whoever signs in does not wait for all of them. */
const view = (path: string, load: () => Promise<ComponentType>): RouteObject => ({
  path,
  lazy: async () => ({ Component: await load() }),
})

export const router = createBrowserRouter([
  { ...view('/sign-in', async () => (await import('./people/SignInView')).SignInView), HydrateFallback: () => null },
  {
    path: '/',
    element: <Frame />,
    HydrateFallback: () => null,
    errorElement: <Broken />,
    children: [
      // A view that breaks leaves what stands around it.
      {
        errorElement: <Broken />,
        children: [
          { index: true, element: <Navigate to="/lists" replace /> },
          view('lists', async () => (await import('./lists/ListsView')).ListsView),
          view('providers', async () => (await import('./connections/ProvidersView')).ProvidersView),
          view('providers/:provider', async () => (await import('./connections/ConnectorView')).ConnectorView),
          view('destinations', async () => (await import('./destinations/DestinationsView')).DestinationsView),
          view(
            'destinations/:destination',
            async () => (await import('./destinations/DestinationView')).DestinationView,
          ),
          view('programs', async () => (await import('./programs/ProgramsView')).ProgramsView),
          view('people', async () => (await import('./people/PeopleView')).PeopleView),
          view('suppression', async () => (await import('./suppression/SuppressionView')).SuppressionView),
          view('spend', async () => (await import('./spend/SpendView')).SpendView),
          {
            path: 'lists/:listId',
            element: <ListFrame />,
            children: [
              {
                errorElement: <Broken />,
                children: [
                  { index: true, element: <Navigate to="tidy" replace /> },
                  view('bring', async () => (await import('./bring/BringView')).BringView),
                  view('bring/pages', async () => (await import('./harvest/PagesView')).PagesView),
                  view('bring/pages/:harvestId', async () => (await import('./harvest/HarvestView')).HarvestView),
                  view('bring/directory', async () => (await import('./directory/DirectoryView')).DirectoryView),
                  view(
                    'bring/directory/:searchId',
                    async () => (await import('./directory/DirectorySearchView')).DirectorySearchView,
                  ),
                  view(
                    'bring/automations',
                    async () => (await import('./automations/AutomationsView')).AutomationsView,
                  ),
                  view('tidy', async () => (await import('./tidy/TidyView')).TidyView),
                  view('pair', async () => (await import('./pair/PairView')).PairView),
                  view('check', async () => (await import('./check/CheckView')).CheckView),
                  view('fill', async () => (await import('./fill/FillView')).FillView),
                  view('split', async () => (await import('./split/SplitView')).SplitView),
                  view('send', async () => (await import('./send/SendView')).SendView),
                ],
              },
            ],
          },
          { path: '*', element: <NotThere /> },
        ],
      },
    ],
  },
])
