import type { LibraryEntry } from '../../api/client'
import type { Found } from '../../api/client'

export interface Filter {
  head: string
  least: number
  zone: string
  hardest: string
  hand: string
  arms: string
  load: string
  joint: string
  alone: boolean
  room: boolean
  /** what is to be avoided by the client is left out */
  avoided: boolean
  /** what there is, as kinds of need; empty: anything */
  has: string[]
}

export const noFilter: Filter = {
  head: '',
  least: 0,
  zone: '',
  hardest: '',
  hand: '',
  arms: '',
  load: '',
  joint: '',
  alone: false,
  room: false,
  avoided: true,
  has: [],
}

/** said says whether an entry is among what words found; a kept set-up also by the name it was given. */
export function said(e: LibraryEntry, found: Found, typed: string): boolean {
  if (found.found.some((x) => x.movement === e.id)) return true
  return (
    e.own &&
    typed
      .toLowerCase()
      .split(/\s+/)
      .every((w) => e.name.toLowerCase().includes(w))
  )
}

/** fits says whether an entry passes every filter; a joint counts as spared up to a score of 1. */
export function fits(e: LibraryEntry, f: Filter): boolean {
  const head = e.heads.find((h) => h.id === f.head)
  return (
    (!head || (head.bias > 0 && head.bias >= f.least && (!f.zone || head.zone === f.zone))) &&
    (!f.hardest || e.hardest === f.hardest) &&
    (!f.hand || e.hand === f.hand) &&
    (!f.arms || e.arms === f.arms) &&
    (!f.load || e.load === f.load) &&
    (!f.joint || (e.joints.find((j) => j.name === f.joint)?.score ?? 0) <= 1) &&
    (!f.alone || e.safe_alone === 'yes') &&
    (!f.room || e.lacks.length === 0) &&
    (!f.avoided || !e.verdict?.barred) &&
    (f.has.length === 0 || e.needs.every((n) => f.has.includes(kindOfNeed(n))))
  )
}

/** kindOfNeed is a need without its angle or number: a bench at 45° is a bench. */
export function kindOfNeed(need: string): string {
  return need
    .replace(/ at [\d.]+ ?(°|m)$/, '')
    .replace('a flat bench', 'a bench')
    .replace('a pulley', 'a cable column')
}

/** sorted puts the greatest bias for a head first; without a head the catalogue's order stays. */
export function sorted(entries: LibraryEntry[], head: string): LibraryEntry[] {
  if (!head) return entries
  const bias = (e: LibraryEntry) => e.heads.find((h) => h.id === head)?.bias ?? 0
  return [...entries].sort((a, b) => bias(b) - bias(a))
}
