import { useState } from 'react'

type Errand = (overtaken: () => boolean) => Promise<void>

function oneAtATime(): (errand: Errand) => void {
  let flying = false
  let wanted: Errand | null = null
  return (errand) => {
    wanted = errand
    if (flying) return
    flying = true
    void (async () => {
      while (wanted) {
        const go: Errand = wanted
        wanted = null
        await go(() => wanted !== null)
      }
      flying = false
    })()
  }
}

/**
 * useLatest runs one errand at a time; of those that came meanwhile only the
 * latest is run next. What it returns never changes.
 */
export function useLatest(): (errand: Errand) => void {
  return useState(oneAtATime)[0]
}
