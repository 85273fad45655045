import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'

/**
 * sending gives the id of what is about to be sent: the same content sent again,
 * its answer lost, is the same thing; other content is another one. Once it is
 * kept the next is new whatever it holds.
 */
export function sending() {
  let last: { content: string; id: string } | null = null
  return {
    idOf(content: unknown): string {
      const text = JSON.stringify(content)
      if (last?.content !== text) last = { content: text, id: uuidv7() }
      return last.id
    },
    kept() {
      last = null
    },
  }
}

/** useSending is a sending that lives as long as its component. */
export function useSending() {
  return useState(sending)[0]
}
