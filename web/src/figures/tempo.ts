/** last is the index of a repetition's last picture. */
export const last = 40

/** Tempo is how long a repetition goes down, is held, goes up, is held, in seconds. */
export type Tempo = readonly number[]

/** placeAt is where in its range a repetition is after some seconds: up, held, down, held, and again. */
export function placeAt(seconds: number, [down = 2, low = 0, up = 2, high = 0]: Tempo): number {
  const whole = up + high + down + low || 1
  let t = Math.max(0, seconds) % whole // a frame can be told of a time before it was asked for
  if (t < up) return up > 0 ? (t / up) * last : last
  t -= up
  if (t < high) return last
  t -= high
  if (t < down) return last - (t / down) * last
  return 0
}
