import type { UseQueryResult } from '@tanstack/react-query'

/**
 * Waiting keeps the page's shape while a first answer is under way, says why when it takes long, and what it was when
 * it failed.
 */
export function Waiting({ query }: { query: Pick<UseQueryResult, 'isError' | 'error' | 'failureReason' | 'refetch'> }) {
  return (
    <div className="waiting" aria-busy="true">
      {query.failureReason ? (
        <p role="status">{query.failureReason.message} Trying again …</p>
      ) : (
        <div className="skeleton" />
      )}
    </div>
  )
}
