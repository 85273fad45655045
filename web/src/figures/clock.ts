/** The clock that figures play by: one for the page, so that set-ups beside each other play in step. */
import { last, placeAt, type Tempo } from './tempo'

/** beat is how often who hears the clock is told while it runs, ms: as long as words take to be read. What moves follows it by itself. */
const beat = 1000

type Hear = (place: number, running: boolean) => void

let place = 0
let running = false
let open = false
let tempo: Tempo = [2, 0, 2, 0]
let fault = ''
let since = 0
let beats: ReturnType<typeof setInterval> | undefined
const hearers = new Set<Hear>()
const watchers = new Set<() => void>()

const now = () => (running ? placeAt((performance.now() - since) / 1000, tempo) : place)
const tell = () => hearers.forEach((h) => h(now(), running))
const changed = () => watchers.forEach((w) => w())
const stand = (at: number) => {
  place = at
  running = false
  clearInterval(beats)
}

export const clock = {
  /** hear tells where it is when it starts and stands, at every beat while it runs, and now. */
  hear: (h: Hear) => {
    hearers.add(h)
    h(now(), running)
    return () => void hearers.delete(h)
  },
  /** watch tells when it is opened, closed, started or stopped. */
  watch: (w: () => void) => {
    watchers.add(w)
    return () => void watchers.delete(w)
  },
  place: now,
  isRunning: () => running,
  isOpen: () => open,
  /** fault is which one is played; empty: it is done as it should be. */
  fault: () => fault,
  /** run is how it runs: since when, ms by the page's clock, and at which tempo. */
  run: () => ({ since, tempo }),
  start: (by: Tempo, wrong = fault) => {
    const from = now()
    fault = wrong
    tempo = by
    open = running = true
    since = performance.now() - (from / last) * (by[2] || 1) * 1000
    clearInterval(beats)
    beats = setInterval(tell, beat)
    tell()
    changed()
  },
  stop: () => {
    stand(now())
    tell()
    changed()
  },
  /** seek goes to a place and stays there. */
  seek: (to: number) => {
    stand(Math.max(0, Math.min(last, to)))
    open = true
    tell()
    changed()
  },
  close: () => {
    stand(0)
    open = false
    fault = ''
    changed()
  },
}

/** follow moves something along its own width as the clock goes: by the browser itself, without a line of script while it runs. */
export function follow(what: HTMLElement): () => void {
  let moving: Animation | undefined
  let from = 0
  const across = (at: number) => `translateX(${(at / last) * 100}%)`
  const stop = clock.hear((place, running) => {
    const { since, tempo } = clock.run()
    if (running && moving && from === since) return
    moving?.cancel()
    moving = undefined
    what.style.transform = across(place)
    if (!running) return
    from = since
    const [down = 2, low = 0, up = 2, high = 0] = tempo
    const whole = up + high + down + low || 1
    moving = what.animate(
      [
        { transform: across(0), offset: 0 },
        { transform: across(last), offset: up / whole },
        { transform: across(last), offset: (up + high) / whole },
        { transform: across(0), offset: (up + high + down) / whole },
        { transform: across(0), offset: 1 },
      ],
      { duration: whole * 1000, iterations: Infinity },
    )
    moving.currentTime = performance.now() - since
  })
  return () => {
    stop()
    moving?.cancel()
  }
}
