import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { useLocation, useMatches } from 'react-router'
import type { ClientView } from '../api/client'
import { queries } from '../api/queries'

/** Titled is what a route says of its page. */
export interface Titled {
  title?: string
}

/** useArrival names the page in the browser's title and takes the focus to it when another one is gone to. */
export function useArrival() {
  const { pathname } = useLocation()
  const matches = useMatches()
  const cache = useQueryClient()
  const title = matches.flatMap((m) => (m.handle as Titled | undefined)?.title ?? []).at(-1)
  const client = matches.flatMap((m) => m.params.client ?? []).at(-1)
  useEffect(() => {
    const name = () => client && cache.getQueryData<ClientView>(queries.client(client).queryKey)?.name
    const write = () => {
      document.title = [name(), title, 'Musculus'].filter(Boolean).join(' · ')
    }
    write()
    return client
      ? cache.getQueryCache().subscribe((e) => (e.query.queryKey as unknown[])[0] === 'client' && write())
      : undefined
  }, [title, client, cache])
  const was = useRef(pathname)
  useEffect(() => {
    if (was.current === pathname) return
    was.current = pathname
    // Where the page itself takes the focus it has it already.
    const wait = setTimeout(() => {
      const main = document.querySelector<HTMLElement>('#place main')
      if (!main || document.activeElement?.closest('#place main')) return
      main.tabIndex = -1
      main.focus({ preventScroll: true })
    }, 50)
    return () => clearTimeout(wait)
  }, [pathname])
}
