import { useEffect, useState } from 'react'
import { Problem } from '../api/client'

/**
 * useOwnErrors brings errors of our own that no screen awaits to the page's boundary instead of letting them go
 * unsaid.
 */
export function useOwnErrors() {
  const [error, setError] = useState<{ was: unknown } | null>(null)
  useEffect(() => {
    const rejected = (e: PromiseRejectionEvent) => {
      if (!(e.reason instanceof Problem) && !(e.reason instanceof DOMException)) setError({ was: e.reason })
    }
    window.addEventListener('unhandledrejection', rejected)
    return () => window.removeEventListener('unhandledrejection', rejected)
  }, [])
  if (error) throw error.was
}
