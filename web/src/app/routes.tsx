import { createBrowserRouter, Navigate } from 'react-router'
import { Shell } from './Shell'
import { Broken, Missing, Soon } from './Soon'

/** Each place is loaded when it is first gone to. */
export const router = createBrowserRouter([
  { path: 's/:token', lazy: async () => ({ Component: (await import('../places/clients/sheet/ByLink')).ByLink }) },

  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="/clients" replace /> },
      { path: 'clients', lazy: async () => ({ Component: (await import('../places/clients/Wall')).Wall }) },
      {
        path: 'clients/:client',
        lazy: async () => ({ Component: (await import('../places/clients/Client')).Client }),
        children: [
          { index: true, element: <Navigate to="week" replace /> },
          {
            path: 'dossier',
            lazy: async () => ({ Component: (await import('../places/clients/dossier/Dossier')).Dossier }),
          },
          {
            path: 'dossier/measures',
            lazy: async () => ({ Component: (await import('../places/clients/dossier/Measures')).Measures }),
          },
          {
            path: 'dossier/now',
            lazy: async () => ({ Component: (await import('../places/clients/dossier/Now')).Now }),
          },
          {
            path: 'priorities',
            lazy: async () => ({ Component: (await import('../places/clients/priorities/Priorities')).Priorities }),
          },
          { path: 'week', lazy: async () => ({ Component: (await import('../places/clients/week/Board')).Board }) },
          {
            path: 'week/:session',
            lazy: async () => ({ Component: (await import('../places/clients/week/Week')).Week }),
          },
          {
            path: 'sheet/:session?',
            lazy: async () => ({ Component: (await import('../places/clients/sheet/Sheet')).Sheet }),
          },
          { path: 'log/:session?', lazy: async () => ({ Component: (await import('../places/clients/log/Log')).Log }) },
          { path: ':knot', lazy: async () => ({ Component: (await import('../places/clients/Knot')).Knot }) },
        ],
      },
      {
        path: 'today',
        element: (
          <Soon
            title="Today"
            holds="Who trains today, what is due (measuring, a stalled lift, pain reported), and a session started in one key."
          />
        ),
      },
      { path: 'fitting', lazy: async () => ({ Component: (await import('../places/fitting/Fitting')).Fitting }) },
      { path: 'library', lazy: async () => ({ Component: (await import('../places/library/Library')).Library }) },
      { path: 'library/ours', lazy: async () => ({ Component: (await import('../places/library/Ours')).Ours }) },
      {
        path: 'library/ours/:own',
        lazy: async () => ({ Component: (await import('../places/library/OwnMovement')).OwnMovement }),
      },
      { path: 'stances', lazy: async () => ({ Component: (await import('../places/stances/Stances')).Stances }) },
      { path: 'studio', lazy: async () => ({ Component: (await import('../places/studio/Studio')).Studio }) },
      { path: '*', element: <Missing /> },
    ],
  },
])
