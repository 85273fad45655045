import { useQuery, useQueryClient } from '@tanstack/react-query'
import { createContext, useContext } from 'react'
import { api, got, Problem, type Catalogue, type Me } from '../api/client'
import { readDates } from './dates'
import { openFor } from './kept'

/** useMe asks who is signed in; null when nobody is. */
export function useMe() {
  return useQuery<Me | null>({
    queryKey: ['me'],
    queryFn: async () => {
      try {
        const me = await got(api.GET('/me'))
        openFor(me.id)
        readDates(me.dates)
        return me
      } catch (e) {
        if (e instanceof Problem && e.status === 401) return null
        throw e
      }
    },
    staleTime: 60_000,
  })
}

export const CatalogueContext = createContext<Catalogue | null>(null)

/** useCatalogue gives the slices and movements, which the shell has loaded. */
export function useCatalogue(): Catalogue {
  const c = useContext(CatalogueContext)
  if (!c) throw new Error('outside the shell')
  return c
}

/**
 * useSignedOut returns what to call when an answer says that the sign-in has ended: the sign-in page comes up, the
 * address stays.
 */
export function useSignedOut() {
  const queries = useQueryClient()
  return () => queries.setQueryData(['me'], null)
}
