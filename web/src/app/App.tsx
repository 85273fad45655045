import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { ConfigProvider } from 'antd'
import { useSyncExternalStore } from 'react'
import { RouterProvider } from 'react-router'
import { Problem } from '../api/client'
import { SavingContext, savingFor } from '../saving/useDoc'
import { router } from './routes'
import { Teller } from '../ui/Teller'
import { dark, light } from './theme'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      refetchOnWindowFocus: true,
      // Only what may go through later is tried again.
      retry: (count, error) => error instanceof Problem && error.away && count < 20,
      retryDelay: (count) => Math.min(500 * 2 ** count, 3000),
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
})

const saving = savingFor(queries)

const night = window.matchMedia('(prefers-color-scheme: dark)')

function useNight() {
  return useSyncExternalStore(
    (changed) => {
      night.addEventListener('change', changed)
      return () => night.removeEventListener('change', changed)
    },
    () => night.matches,
  )
}

export function App() {
  return (
    <ConfigProvider theme={useNight() ? dark : light}>
      <QueryClientProvider client={queries}>
        <SavingContext value={saving}>
          <RouterProvider router={router} />
        </SavingContext>
        <Teller />
      </QueryClientProvider>
    </ConfigProvider>
  )
}
