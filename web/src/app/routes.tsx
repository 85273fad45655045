import { createBrowserRouter, Navigate } from 'react-router'
import { Shell } from './Shell'
import { Missing } from '../ui/Failed'
import { Broken } from './Broken'

/** Each place is loaded when it is first gone to. */
export const router = createBrowserRouter([
  // What opens for whoever is not signed in.
  {
    path: 'once/:token',
    errorElement: <Broken />,
    lazy: async () => ({ Component: (await import('../places/signin/Once')).Once }),
  },
  {
    path: 'forgotten',
    errorElement: <Broken />,
    lazy: async () => ({ Component: (await import('../places/signin/Forgotten')).Forgotten }),
  },
  {
    element: <Shell />,
    errorElement: <Broken />,
    // What fails in a place leaves the bar, and what waits in it, where it is.
    children: [
      {
        errorElement: <Broken />,
        children: [
          { index: true, element: <Navigate to="/today" replace /> },
          {
            path: 'clients',
            handle: { title: 'Clients' },
            lazy: async () => ({ Component: (await import('../places/clients/Wall')).Wall }),
          },
          {
            path: 'clients/next-week',
            handle: { title: 'Next week' },
            lazy: async () => ({ Component: (await import('../places/clients/NextWeek')).NextWeek }),
          },
          {
            path: 'clients/:client',
            lazy: async () => ({ Component: (await import('../ui/thread/Client')).Client }),
            children: [
              { index: true, element: <Navigate to="week" replace /> },
              {
                path: 'dossier',
                handle: { title: 'Dossier' },
                lazy: async () => ({ Component: (await import('../places/dossier/Dossier')).Dossier }),
              },
              {
                path: 'dossier/measures',
                handle: { title: 'Measures' },
                lazy: async () => ({ Component: (await import('../places/dossier/Measures')).Measures }),
              },
              {
                path: 'dossier/now',
                handle: { title: 'What is done now' },
                lazy: async () => ({ Component: (await import('../places/dossier/Now')).Now }),
              },
              {
                path: 'priorities',
                handle: { title: 'Priorities' },
                lazy: async () => ({ Component: (await import('../places/priorities/Priorities')).Priorities }),
              },
              {
                path: 'week',
                handle: { title: 'Week' },
                lazy: async () => ({ Component: (await import('../places/week/Board')).Board }),
              },
              {
                path: 'week/:session',
                handle: { title: 'Session' },
                lazy: async () => ({ Component: (await import('../places/week/Week')).Week }),
              },
              {
                path: 'sheet/:session?',
                handle: { title: 'Sheet' },
                lazy: async () => ({ Component: (await import('../places/sheet/Sheet')).Sheet }),
              },
              {
                path: 'log/:session?',
                handle: { title: 'Log' },
                lazy: async () => ({ Component: (await import('../places/log/Log')).Log }),
              },
              {
                path: 'trend',
                handle: { title: 'Trend' },
                lazy: async () => ({ Component: (await import('../places/trend/Trend')).Trend }),
              },
            ],
          },
          {
            path: 'today',
            handle: { title: 'Today' },
            lazy: async () => ({ Component: (await import('../places/today/Today')).Today }),
          },
          {
            path: 'fitting',
            handle: { title: 'Fitting' },
            lazy: async () => ({ Component: (await import('../places/fitting/Fitting')).Fitting }),
          },
          {
            path: 'library',
            handle: { title: 'Library' },
            lazy: async () => ({ Component: (await import('../places/library/Library')).Library }),
          },
          {
            path: 'library/ours',
            handle: { title: 'Our movements' },
            lazy: async () => ({ Component: (await import('../places/library/Ours')).Ours }),
          },
          {
            path: 'library/ours/:own',
            handle: { title: 'A movement of our own' },
            lazy: async () => ({ Component: (await import('../places/library/OwnMovement')).OwnMovement }),
          },
          {
            path: 'stances',
            handle: { title: 'Stances' },
            lazy: async () => ({ Component: (await import('../places/stances/Stances')).Stances }),
          },
          {
            path: 'me',
            handle: { title: 'Your account' },
            lazy: async () => ({ Component: (await import('../places/account/MyAccount')).MyAccount }),
          },
          {
            path: 'studio/people',
            handle: { title: 'People' },
            lazy: async () => ({ Component: (await import('../places/studio/People')).People }),
          },
          {
            path: 'studio/security',
            handle: { title: 'Security' },
            lazy: async () => ({ Component: (await import('../places/studio/Security')).Security }),
          },
          {
            path: 'studio',
            handle: { title: 'Studio' },
            lazy: async () => ({ Component: (await import('../places/studio/Studio')).Studio }),
          },
          { path: '*', element: <Missing /> },
        ],
      },
    ],
  },
])
