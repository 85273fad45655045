import { useQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import type { Found } from '../api/client'
import { queries } from '../api/queries'

/** useFound is what plain words say and find, as they are typed; nothing while nothing is typed. */
export function useFound(typed: string): Found | null {
  const text = useDeferredValue(typed.trim())
  const found = useQuery({ ...queries.find(text), enabled: text.length > 1 })
  return text.length > 1 ? (found.data ?? null) : null
}

/** rankOf says at which place a movement stands among what was found, −1 for not at all. */
export function rankOf(found: Found, movement: string): number {
  return found.found.findIndex((f) => f.movement === movement)
}
