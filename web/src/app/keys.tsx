import { useEffect, useRef } from 'react'

/** Keys are what a place answers to: a key as the browser names it, with what it does. */
export type Keys = Record<string, { does: string; run: (e: KeyboardEvent) => void }>

const active = new Set<{ current: Keys }>()

/** shownKeys lists every key that works right now, for the help. */
export function shownKeys(): [string, string][] {
  return [...active].flatMap((k) => Object.entries(k.current).map(([key, v]): [string, string] => [key, v.does]))
}

const offKey = 'musculus-letters-off'

/** lettersOff says whether keys that are one character are switched off on this device; the help's own stays. */
export const lettersOff = () => localStorage.getItem(offKey) !== null

/** switchLetters switches them off, or on again. */
export function switchLetters(off: boolean) {
  if (off) localStorage.setItem(offKey, 'yes')
  else localStorage.removeItem(offKey)
}

function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

/** name writes a key press as Keys spells it: "/", "?", "Ctrl+z". */
function name(e: KeyboardEvent): string {
  const ctrl = e.ctrlKey || e.metaKey
  return (ctrl ? 'Ctrl+' : '') + (ctrl && e.shiftKey ? 'Shift+' : '') + (ctrl ? e.key.toLowerCase() : e.key)
}

/** useKeys answers key presses while the component is there; never while the user types, but for Escape. */
export function useKeys(keys: Keys) {
  const ref = useRef(keys)
  useEffect(() => {
    ref.current = keys
  })
  useEffect(() => {
    active.add(ref)
    const press = (e: KeyboardEvent) => {
      if (typing(e.target) && e.key !== 'Escape') return
      if (e.key.length === 1 && e.key !== '?' && !e.ctrlKey && !e.metaKey && lettersOff()) return
      const hit = ref.current[name(e)]
      if (!hit || e.defaultPrevented) return
      e.preventDefault()
      hit.run(e)
    }
    window.addEventListener('keydown', press)
    return () => {
      active.delete(ref)
      window.removeEventListener('keydown', press)
    }
  }, [])
}
