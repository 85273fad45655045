/** The clock that figures play by: one for the page, so that set-ups beside each other play in step. */

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

type Hear = (place: number, running: boolean) => void

let place = 0
let running = false
let open = false
let tempo: Tempo = [2, 0, 2, 0]
let fault = ''
let since = 0
let frame = 0
const hearers = new Set<Hear>()
const watchers = new Set<() => void>()

const tell = () => hearers.forEach((h) => h(place, running))
const changed = () => watchers.forEach((w) => w())

const tick = (now: number) => {
  if (!running) return
  place = placeAt((now - since) / 1000, tempo)
  tell()
  frame = requestAnimationFrame(tick)
}

export const clock = {
  /** hear tells every place that is come to, and the one now. */
  hear: (h: Hear) => {
    hearers.add(h)
    h(place, running)
    return () => void hearers.delete(h)
  },
  /** watch tells when it is opened, closed, started or stopped. */
  watch: (w: () => void) => {
    watchers.add(w)
    return () => void watchers.delete(w)
  },
  place: () => place,
  isRunning: () => running,
  isOpen: () => open,
  /** fault is which one is played; empty: it is done as it should be. */
  fault: () => fault,
  start: (by: Tempo, wrong = fault) => {
    fault = wrong
    tempo = by
    open = running = true
    const up = by[2] || 1
    since = performance.now() - (place / last) * up * 1000
    cancelAnimationFrame(frame)
    frame = requestAnimationFrame(tick)
    changed()
  },
  stop: () => {
    running = false
    cancelAnimationFrame(frame)
    tell()
    changed()
  },
  /** seek goes to a place and stays there. */
  seek: (to: number) => {
    running = false
    open = true
    cancelAnimationFrame(frame)
    place = Math.max(0, Math.min(last, to))
    tell()
    changed()
  },
  close: () => {
    running = open = false
    fault = ''
    cancelAnimationFrame(frame)
    place = 0
    changed()
  },
}
