import { createBrowserRouter, Navigate } from 'react-router'
import { BringView } from './bring/BringView'
import { CheckView } from './check/CheckView'
import { ProvidersView } from './connections/ProvidersView'
import { SpendView } from './connections/SpendView'
import { FillView } from './fill/FillView'
import { ListsView } from './lists/ListsView'
import { PairView } from './pair/PairView'
import { SignInView } from './people/SignInView'
import { SendView } from './send/SendView'
import { Frame } from './shell/Frame'
import { ListFrame } from './shell/ListFrame'
import { NotThere } from './shell/NotThere'
import { SplitView } from './split/SplitView'
import { SuppressionView } from './suppression/SuppressionView'
import { TidyView } from './tidy/TidyView'

export const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInView /> },
  {
    path: '/',
    element: <Frame />,
    errorElement: <NotThere />,
    children: [
      { index: true, element: <Navigate to="/lists" replace /> },
      { path: 'lists', element: <ListsView /> },
      { path: 'providers', element: <ProvidersView /> },
      { path: 'suppression', element: <SuppressionView /> },
      { path: 'spend', element: <SpendView /> },
      {
        path: 'lists/:listId',
        element: <ListFrame />,
        children: [
          { index: true, element: <Navigate to="tidy" replace /> },
          { path: 'bring', element: <BringView /> },
          { path: 'tidy', element: <TidyView /> },
          { path: 'pair', element: <PairView /> },
          { path: 'check', element: <CheckView /> },
          { path: 'fill', element: <FillView /> },
          { path: 'split', element: <SplitView /> },
          { path: 'send', element: <SendView /> },
        ],
      },
      { path: '*', element: <NotThere /> },
    ],
  },
])
