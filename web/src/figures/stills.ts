/** A repetition's pictures: where each of their lines runs, between any two of them. */
import type { Stills } from '../api/client'

/** fine is how many steps lines are drawn in for one of the stills' own: whole numbers are written fastest. */
export const fine = 4

/** per is how many of these steps a metre has. */
export const per = (s: Stills) => fine / s.unit

/** placesOf adds the changes up: the places of every picture. */
export function placesOf(s: Pick<Stills, 'first' | 'bends'>): Int32Array[] {
  const out = [Int32Array.from(s.first)]
  const step = new Int32Array(s.first.length)
  for (const bend of s.bends) {
    bend.forEach((by, k) => (step[k]! += by))
    out.push(out[out.length - 1]!.map((x, k) => x + step[k]!))
  }
  return out
}

/** startsOf is where the places of each part begin. */
export function startsOf(s: Pick<Stills, 'parts'>): number[] {
  const out = [0]
  for (const p of s.parts) out.push(out[out.length - 1]! + 2 * p.points)
  return out
}

/** between is where every place is between two pictures, in fine steps. */
export function between(places: Int32Array[], place: number, into: Int32Array): Int32Array {
  const i = Math.max(0, Math.min(places.length - 2, Math.floor(place)))
  const t = (place - i) * fine
  const [a, b] = [places[i]!, places[i + 1]!]
  for (let k = 0; k < into.length; k++) into[k] = Math.round(a[k]! * fine + (b[k]! - a[k]!) * t)
  return into
}

/** pathOf writes a part's path data; of a smooth one bent round its points. */
export function pathOf(part: Stills['parts'][number], at: Int32Array, from: number, perMetre: number): string {
  if (part.r) {
    const r = Math.round(part.r * perMetre)
    return `M${at[from]! - r} ${at[from + 1]!}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`
  }
  const end = from + 2 * part.points
  if (!part.smooth) {
    let d = `M${at[from]!} ${at[from + 1]!}`
    for (let k = from + 2; k < end; k += 2) d += `L${at[k]!} ${at[k + 1]!}`
    return part.closed ? d + 'Z' : d
  }
  let [x, y] = [at[end - 2]!, at[end - 1]!]
  let d = `M${(x + at[from]!) >> 1} ${(y + at[from + 1]!) >> 1}`
  for (let k = from; k < end; k += 2) {
    x = at[k]!
    y = at[k + 1]!
    const next = k + 2 < end ? k + 2 : from
    d += `Q${x} ${y} ${(x + at[next]!) >> 1} ${(y + at[next + 1]!) >> 1}`
  }
  return d + 'Z'
}

/** isSlack says whether a head is slack in a picture. */
export const isSlack = (s: Pick<Stills, 'slack'>, at: number, head: number) => ((s.slack[at]! >> head) & 1) === 1

/** headOf are the heads by the core's index. */
export const headOf = [
  'biceps_long',
  'biceps_short',
  'brachialis',
  'brachioradialis',
  'triceps_long',
  'triceps_lateral',
  'triceps_medial',
]
export const headIndex = Object.fromEntries(headOf.map((h, i) => [h, i]))
