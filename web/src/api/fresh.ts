import type { QueryClient, QueryKey } from '@tanstack/react-query'

/** putFresh keeps what a write answered; a reading that is still under way is older and no longer waited for. */
export function putFresh<T>(queries: QueryClient, key: QueryKey, data: T) {
  void queries.cancelQueries({ queryKey: key }).then(() => queries.setQueryData<T>(key, data))
}
