import { useQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import type { Found } from '../api/client'
import { queries } from '../api/queries'

/** useFound is what plain words say and find, as they are typed; nothing while nothing is typed. */
export function useFound(typed: string): Found | null {
  return useFoundNow(typed).found
}

/** useFoundNow says too whether what was found is of what is typed now, and not of a letter before. */
export function useFoundNow(typed: string): { found: Found | null; ready: boolean } {
  const text = useDeferredValue(typed.trim())
  const found = useQuery({ ...queries.find(text), enabled: text.length > 1 })
  const asked = text.length > 1
  return {
    found: asked ? (found.data ?? null) : null,
    ready: text === typed.trim() && (!asked || (found.isSuccess && !found.isPlaceholderData)),
  }
}

/** rankOf says at which place a movement stands among what was found, −1 for not at all. */
export function rankOf(found: Found, movement: string): number {
  return found.found.findIndex((f) => f.movement === movement)
}
